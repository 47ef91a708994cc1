"""web/openapi.json, from which the interface's client is made: write it, or check that it is current."""

from __future__ import annotations

import json
import sys
from typing import Any

from ironkettle.api.app import create_app
from ironkettle.settings import PROJECT

FILE = PROJECT / "web" / "openapi.json"


def openapi_text() -> str:
    document: dict[str, Any] = create_app().openapi()
    return json.dumps(document, indent=1, ensure_ascii=False) + "\n"


def main() -> int:
    text = openapi_text()
    if "--check" in sys.argv:
        if FILE.exists() and FILE.read_text(encoding="utf-8") == text:
            return 0
        print("web/openapi.json is not current; run: python -m ironkettle.api.openapi")
        return 1
    FILE.write_text(text, encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
