"""The folder of the database: made whole or not at all, and never deleted with data in it.

``initdb`` works in a folder of another name, which is the mark of half-finished work: it gets its
own name only when all of it is on disk. A folder of that name therefore always holds a database.
"""

import hashlib
import os
import shutil
import subprocess
from pathlib import Path

from launcher.files import read_text, sync_folder, write_whole
from launcher.say import LauncherError, say
from launcher.users import DATABASE_USER, as_user, can_reach, own

#: The superuser of the cluster, which only the launcher uses.
ADMIN = "axis_path"
_ELSEWHERE = Path("/var/lib/axis-path")
_FORMERLY = Path("/var/tmp")  # noqa: S108 - nothing is put there any more


def choose_folder(wanted: Path) -> Path:
    """Return the folder for the database: the wanted one, or one that its user can reach.

    A folder above the wanted one may be closed to others. The other one lies where only root may
    create anything, so nobody else can put something of theirs in its place.
    """
    wanted.parent.mkdir(parents=True, exist_ok=True)
    if can_reach(DATABASE_USER, wanted.parent):
        return wanted
    mark = hashlib.sha256(str(wanted).encode()).hexdigest()[:12]
    other = _ELSEWHERE / mark / wanted.name
    say(f"  The user {DATABASE_USER} cannot reach {wanted.parent}; the database lies in {other}.")
    other.parent.mkdir(mode=0o755, parents=True, exist_ok=True)
    _take_over(_FORMERLY / f"axis-path-{mark}", other.parent)
    return other


def _take_over(former: Path, folder: Path) -> None:
    """Move what an earlier version kept in a folder for all into the one for root's own.

    Anybody could have put something in that place, so it is taken only if root made it.
    """
    if not former.is_dir() or former.is_symlink() or any(folder.iterdir()):
        return
    if former.stat().st_uid != os.geteuid():
        return
    for path in former.iterdir():
        shutil.move(path, folder / path.name)
    former.rmdir()


def has_database(folder: Path) -> bool:
    """Check whether a folder holds a database, whole or damaged."""
    return (folder / "global" / "pg_control").exists() or (folder / "base").exists()


def make_ready(folder: Path, programs: Path, password: str) -> bool:
    """Make a database in a folder, or repair what little is missing of it.

    Args:
        folder: where it is or will be.
        programs: PostgreSQL's.
        password: of the superuser of a new one.

    Returns:
        Whether it is new.

    Raises:
        LauncherError: the folder holds something else, or a database beyond repair.
    """
    if has_database(folder):
        _repair_version(folder)
        return False
    if folder.exists() and any(folder.iterdir()):
        raise LauncherError(
            f"{folder} holds files that are no database. Nothing was changed. "
            "Move the folder away to begin with a new database."
        )
    _create(folder, programs, password)
    return True


def _repair_version(folder: Path) -> None:
    """Write the file ``PG_VERSION`` again if it is lost: each database in it has its own."""
    if read_text(folder / "PG_VERSION"):
        return
    known = {read_text(path) for path in folder.glob("base/*/PG_VERSION")} - {""}
    if len(known) != 1:
        raise LauncherError(
            f"The database in {folder} is damaged: PG_VERSION is missing, and nothing tells which "
            "version it was. Nothing was changed. Restore the folder from a copy."
        )
    version = known.pop()
    say(f"  The file PG_VERSION of the database was lost; it is written again ({version}).")
    write_whole(folder / "PG_VERSION", f"{version}\n", mode=0o600)
    own(folder / "PG_VERSION", DATABASE_USER)


def _create(folder: Path, programs: Path, password: str) -> None:
    half = folder.with_name(f"{folder.name}.unfinished")
    # By its name it is what an earlier start left half made.
    shutil.rmtree(half, ignore_errors=True)
    half.mkdir(mode=0o700)
    secret = folder.with_name(f"{folder.name}.initial")
    write_whole(secret, password, mode=0o600)
    for path in (half, secret):
        own(path, DATABASE_USER)
    try:
        done = subprocess.run(
            [*as_user(DATABASE_USER), str(programs / "initdb"), "-D", str(half), "-U", ADMIN,
             "-A", "scram-sha-256", f"--pwfile={secret}", "-E", "UTF8", "--locale=C.UTF-8",
             "--no-instructions"],
            capture_output=True, text=True, check=False, cwd="/",
        )  # fmt: skip
        if done.returncode != 0:
            raise LauncherError(f"initdb failed:\n{done.stdout}{done.stderr}")
    finally:
        secret.unlink(missing_ok=True)
    if folder.exists():
        folder.rmdir()
    half.rename(folder)
    sync_folder(folder.parent)


def reset_password(folder: Path, programs: Path, password: str) -> None:
    """Set a new password for the superuser of a database that does not run.

    Raises:
        LauncherError: it could not be changed.
    """
    done = subprocess.run(
        [*as_user(DATABASE_USER), str(programs / "postgres"), "--single", "-D", str(folder),
         "postgres"],
        input=f"ALTER ROLE {ADMIN} PASSWORD '{password}';\n",
        capture_output=True, text=True, check=False, cwd="/",
    )  # fmt: skip
    if done.returncode != 0 or "ERROR" in done.stderr:
        raise LauncherError(f"The password of the database could not be reset:\n{done.stderr}")


def version_of(folder: Path) -> str:
    """Return the version of PostgreSQL that a database needs; empty if there is none yet."""
    return read_text(folder / "PG_VERSION") if has_database(folder) else ""
