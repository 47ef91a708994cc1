"""Before serving: ``python -m ironkettle.prepare [--demo|--seed|--empty] [--everyone-has-a-pin]``.

Migrates under the owner's role, grants the application's role what it may do, loads the demo into an
empty workshop. What stops it is told in one sentence, the last line on standard error.
"""

from __future__ import annotations

import sys

from sqlalchemy import Engine, make_url
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session

from ironkettle.config import Settings, sqlalchemy_url
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.grants import grant_application
from ironkettle.store.migrate import NewerDatabaseError, current_revision, is_known, migrate, newest_revision
from ironkettle.store.shop.people import all_people, people_without_secret


def prepare(owner: Engine, *, application_role: str) -> None:
    """Bring the database to the newest migration. Raises NewerDatabaseError for one from a later version."""
    revision = current_revision(owner)
    if revision and not is_known(revision):
        raise NewerDatabaseError(revision)
    if revision != newest_revision():
        migrate(owner)
    grant_application(owner, application_role)


def _load_demo(session: Session) -> bool:
    if all_people(session):
        return False
    # Late, because a shop that has its data never needs it.
    from ironkettle.demo.load import load_demo

    return load_demo(session)


def main() -> int:
    settings = Settings()
    owner = make_engine(settings.owner_database_url or settings.database_url, patient=True)
    application = make_engine(settings.database_url)
    try:
        role = make_url(sqlalchemy_url(settings.database_url)).username or ""
        prepare(owner, application_role=role)
        with session_of(application) as session:
            loaded = "--empty" not in sys.argv and _load_demo(session)
            if loaded:
                print("The demo workshop is loaded.")
            bare = people_without_secret(session)
        if "--seed" in sys.argv and not loaded:
            print("The workshop is not empty; nothing was loaded.", file=sys.stderr)
            return 1
        if "--everyone-has-a-pin" in sys.argv and bare is not None:
            names = ", ".join(bare) or "nobody is in the workshop yet"
            print(
                f"Others could reach this server, and not everybody has a PIN ({names}). Start it on this machine "
                "alone first, and give each a PIN under Workshop.",
                file=sys.stderr,
            )
            return 1
    except NewerDatabaseError as error:
        print(str(error), file=sys.stderr)
        return 1
    except OperationalError as error:
        print(f"The database cannot be used: {str(error.orig).strip().splitlines()[0]}", file=sys.stderr)
        return 1
    finally:
        owner.dispose()
        application.dispose()
    return 0


if __name__ == "__main__":
    sys.exit(main())
