"""Who runs what: started as root, only the launcher itself stays root."""

import os
import pwd
import subprocess
from pathlib import Path

from launcher.say import LauncherError, say

DATABASE_USER = "postgres"
#: Runs the application.
APPLICATION_USER = "axis-path"


def is_root() -> bool:
    """Check whether the launcher has the rights of root."""
    return os.geteuid() == 0


def as_user(user: str, *, at_end: str = "") -> list[str]:
    """Return the words before a command that change to a user; none of them if we are not root.

    Args:
        user: an unprivileged user.
        at_end: the signal that the command gets when the launcher ends, however that happens.
    """
    # The signal must be set after the user was changed, which would clear it.
    dying = ["setpriv", "--pdeathsig", at_end] if at_end else []
    if not is_root():
        return dying
    return ["setpriv", "--reuid", user, "--regid", user, "--init-groups", *dying]


def can_reach(user: str, path: Path) -> bool:
    """Check whether a user can go into a folder."""
    if not is_root():
        return True
    done = subprocess.run(
        [*as_user(user), "test", "-x", str(path)], capture_output=True, check=False
    )
    return done.returncode == 0


def application_user(*paths: Path) -> str:
    """Return the unprivileged user that runs the application, created if it is missing.

    Where that user cannot read the program, because a folder above is closed to others, the
    application has to run as root, and a warning says so.

    Args:
        paths: what it must be able to reach.

    Raises:
        LauncherError: the user cannot be created.
    """
    if not is_root():
        return pwd.getpwuid(os.geteuid()).pw_name
    try:
        pwd.getpwnam(APPLICATION_USER)
    except KeyError:
        _create(APPLICATION_USER)
    closed = next((path for path in paths if not can_reach(APPLICATION_USER, path)), None)
    if closed is None:
        return APPLICATION_USER
    say(
        f"  Warning: the user {APPLICATION_USER} cannot reach {closed}, so the application runs as "
        "root. Move the checkout to a folder that others can read, such as /opt."
    )
    return "root"


def _create(user: str) -> None:
    done = subprocess.run(
        ["useradd", "--system", "--user-group", "--no-create-home", "--home-dir", "/nonexistent",
         "--shell", "/usr/sbin/nologin", user],
        capture_output=True, text=True, check=False,
    )  # fmt: skip
    if done.returncode != 0:
        raise LauncherError(f"The system user {user} could not be created:\n{done.stderr}")


def own(path: Path, user: str) -> None:
    """Change the owner of a file or folder, if we are root."""
    if is_root():
        entry = pwd.getpwnam(user)
        os.chown(path, entry.pw_uid, entry.pw_gid)
