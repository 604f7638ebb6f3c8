"""The role under which the application uses the database: it owns its tables and nothing else."""

import os
import subprocess
from pathlib import Path

from launcher.cluster_folder import ADMIN
from launcher.ports import HOST
from launcher.say import LauncherError

WEB_ROLE = "axis_path_web"
_DATABASE = "postgres"
#: What an earlier version made belongs to the superuser; it is handed over.
_ROLES = f"""
DO $$ BEGIN
    IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '{WEB_ROLE}') THEN
        CREATE ROLE {WEB_ROLE} LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE;
    END IF;
END $$;
ALTER ROLE {WEB_ROLE} PASSWORD :'web_password';
ALTER SCHEMA public OWNER TO {WEB_ROLE};
GRANT CONNECT, TEMPORARY ON DATABASE {_DATABASE} TO {WEB_ROLE};
DO $$ DECLARE found record; BEGIN
    FOR found IN
        SELECT format('ALTER TABLE %s OWNER TO {WEB_ROLE}', c.oid::regclass) AS change
        FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
        WHERE n.nspname = 'public' AND c.relkind IN ('r', 'p', 'v', 'm')
          AND c.relowner = '{ADMIN}'::regrole
        UNION ALL
        SELECT format('ALTER ROUTINE %s OWNER TO {WEB_ROLE}', p.oid::regprocedure)
        FROM pg_proc p JOIN pg_namespace n ON n.oid = p.pronamespace
        WHERE n.nspname = 'public' AND p.proowner = '{ADMIN}'::regrole
        UNION ALL
        SELECT format('ALTER TYPE %s OWNER TO {WEB_ROLE}', t.oid::regtype)
        FROM pg_type t JOIN pg_namespace n ON n.oid = t.typnamespace
        LEFT JOIN pg_class c ON c.oid = t.typrelid
        WHERE n.nspname = 'public' AND t.typowner = '{ADMIN}'::regrole
          AND (t.typtype IN ('e', 'd') OR (t.typtype = 'c' AND c.relkind = 'c'))
    LOOP EXECUTE found.change; END LOOP;
END $$;
"""  # noqa: S608 - all that is put in stands in this file


def set_up_roles(programs: Path, port: int, password: str, web_password: str) -> None:
    """Create the application's role, or give it its password again.

    Args:
        programs: PostgreSQL's.
        port: where the server answers.
        password: of the superuser.
        web_password: of the application's role.

    Raises:
        LauncherError: it failed; what the server said is quoted.
    """
    done = _psql(programs, port, password, f"\\set web_password '{web_password}'\n{_ROLES}")
    if done.returncode != 0:
        raise LauncherError(f"The database could not be set up:\n{done.stderr}")


def knows_password(programs: Path, port: int, password: str) -> bool:
    """Check whether the superuser's password is the one that the server knows."""
    done = _psql(programs, port, password, "SELECT 1;")
    return done.returncode == 0 or "authentication failed" not in done.stderr


def _psql(
    programs: Path, port: int, password: str, text: str
) -> "subprocess.CompletedProcess[str]":
    return subprocess.run(
        [str(programs / "psql"), "-X", "-q", "-w", "-v", "ON_ERROR_STOP=1", "-h", HOST,
         "-p", str(port), "-U", ADMIN, "-d", _DATABASE],
        input=text, capture_output=True, text=True, check=False, cwd="/",
        env={**os.environ, "PGPASSWORD": password},
    )  # fmt: skip
