"""Who may do what in the private cluster.

Three roles: the cluster's own, used for making roles and for backups; the owner of the tables, used
by migrations alone; the application's, which cannot change the shape of anything nor the log of a job
(what it is granted stands in store/grants.py).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path

from ironkettle.launch.postgres import run_sql
from ironkettle.launch.trouble import Trouble


@dataclass(frozen=True)
class Role:
    """A role of the cluster and the file that holds its password, beside the data."""

    name: str
    password_file: str


SUPERUSER = Role("kettle", "password")
OWNER = Role("kettle_owner", "password-owner")
APP = Role("kettle_app", "password-app")
DATABASE = "kettle"

_LOGIN = """
DO $$ BEGIN
    IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '{name}') THEN CREATE ROLE {name}; END IF;
END $$;
ALTER ROLE {name} WITH LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE PASSWORD '{password}';
"""

# Tables of clusters made before there were roles belong to the cluster's own; hand them over.
_HAND_OVER = f"""
DO $$ DECLARE thing record; BEGIN
    FOR thing IN
        SELECT format('ALTER TABLE %I.%I OWNER TO {OWNER.name}', n.nspname, c.relname) AS statement
        FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
        WHERE n.nspname = 'public' AND c.relkind IN ('r', 'p', 'v', 'm') AND c.relowner <> '{OWNER.name}'::regrole
        UNION ALL
        SELECT format('ALTER FUNCTION %s OWNER TO {OWNER.name}', p.oid::regprocedure)
        FROM pg_proc p JOIN pg_namespace n ON n.oid = p.pronamespace
        WHERE n.nspname = 'public' AND p.proowner <> '{OWNER.name}'::regrole
    LOOP EXECUTE thing.statement; END LOOP;
END $$;
"""


def databases(programs: Path, port: int, password: str) -> list[str]:
    """The databases of this installation: the one in use, those being restored and those kept from before, by name."""
    query = f"SELECT datname FROM pg_database WHERE datname = '{DATABASE}' OR datname LIKE '{DATABASE}\\_%' ORDER BY datname;"
    return run_sql(programs, port, SUPERUSER.name, password, query).split()


def ensure_roles(programs: Path, port: int, passwords: Mapping[Role, str]) -> None:
    """Roles with the passwords of their files, and the database belonging to its owner.

    Raises Trouble, also where the database is gone and others of this installation are there: a restore was stopped half-way,
    and an empty database would take the place of the shop's data.
    """
    own = passwords[SUPERUSER]
    statements = "".join(_LOGIN.format(name=role.name, password=passwords[role]) for role in (OWNER, APP))
    run_sql(programs, port, SUPERUSER.name, own, statements)
    found = databases(programs, port, own)
    if DATABASE not in found:
        if found:
            raise Trouble(
                f"The database is not in its place: a restore was stopped half-way. These are there: {', '.join(found)}. "
                "Nothing was changed. ./kettle restore --finish puts the restored one in place, ./kettle restore --undo "
                "the one from before."
            )
        run_sql(programs, port, SUPERUSER.name, own, f"CREATE DATABASE {DATABASE} OWNER {OWNER.name};")
    belongs = f"ALTER DATABASE {DATABASE} OWNER TO {OWNER.name}; REVOKE ALL ON DATABASE {DATABASE} FROM PUBLIC;"
    belongs += f"GRANT CONNECT ON DATABASE {DATABASE} TO {APP.name};"
    run_sql(programs, port, SUPERUSER.name, own, belongs + _HAND_OVER, DATABASE)
