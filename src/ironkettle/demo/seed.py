"""./kettle seed: load the demo workshop into an empty database."""

from __future__ import annotations

import sys

from ironkettle.demo.load import load_demo
from ironkettle.settings import Settings
from ironkettle.store.base import make_engine, session_of
from ironkettle.store.migrate import migrate


def main() -> int:
    engine = make_engine(Settings().database_url)
    migrate(engine)
    with session_of(engine) as session:
        loaded = load_demo(session)
    engine.dispose()
    print("The demo workshop is loaded." if loaded else "The database is not empty; nothing was loaded.")
    return 0 if loaded else 1


if __name__ == "__main__":
    sys.exit(main())
