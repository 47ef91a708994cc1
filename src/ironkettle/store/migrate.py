"""Bring a database to the newest migration, and say where it stands."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Engine


class NewerDatabaseError(Exception):
    """The database was brought up to date by a later version of the program."""

    def __init__(self, revision: str) -> None:
        super().__init__(
            f"The database was last used by a newer version of Iron Kettle (it is at {revision}). Start that version; "
            "this one leaves it as it is."
        )


_HERE = Path(__file__).parent / "migrations"


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(_HERE))
    return config


@cache
def newest_revision() -> str:
    """The revision this version of the application wants."""
    return ScriptDirectory.from_config(_config()).get_current_head() or ""


def is_known(revision: str) -> bool:
    """Whether this version of the application has that revision among its migrations."""
    return revision in {script.revision for script in ScriptDirectory.from_config(_config()).walk_revisions()}


def current_revision(engine: Engine) -> str:
    """The revision the database is at; empty for a fresh one."""
    with engine.connect() as connection:
        return MigrationContext.configure(connection).get_current_revision() or ""


def migrate(engine: Engine, revision: str = "head") -> None:
    """Upgrade to a revision, the newest by default; a downgrade where it lies behind."""
    config = _config()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        if revision == "base":
            command.downgrade(config, revision)
        else:
            command.upgrade(config, revision)
