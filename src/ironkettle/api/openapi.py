"""What the interface is made from: web/openapi.json and the table of units. Write them, or check that they are current."""

from __future__ import annotations

import json
import sys
from typing import Any

from ironkettle.api.app import create_app
from ironkettle.config import PROJECT
from ironkettle.core.base.quantities import OFFERED, find_unit, scale_and_offset

FILE = PROJECT / "web" / "openapi.json"
UNITS_FILE = PROJECT / "web" / "src" / "lib" / "shared" / "units.json"


def openapi_text() -> str:
    """The OpenAPI document of the whole API."""
    document: dict[str, Any] = create_app().openapi()
    return json.dumps(document, indent=1, ensure_ascii=False) + "\n"


def units_text() -> str:
    """The units a field offers, with the size of each in the base unit: base = scale · value + offset."""
    sizes = {}
    for symbol in (symbol for symbols in OFFERED.values() for symbol in symbols):
        unit = find_unit(symbol)
        assert unit is not None
        scale, offset = scale_and_offset(unit)
        sizes[symbol] = {"scale": scale, "offset": offset}
    table = {"offered": {dimension.value: symbols for dimension, symbols in OFFERED.items()}, "sizes": sizes}
    return json.dumps(table, indent="\t", ensure_ascii=False) + "\n"


def main() -> int:
    made = {FILE: openapi_text(), UNITS_FILE: units_text()}
    if "--check" not in sys.argv:
        for file, text in made.items():
            file.write_text(text, encoding="utf-8")
        return 0
    stale = [file for file, text in made.items() if not file.exists() or file.read_text(encoding="utf-8") != text]
    for file in stale:
        print(f"{file.relative_to(PROJECT)} is not current; run: python -m ironkettle.api.openapi")
    return 1 if stale else 0


if __name__ == "__main__":
    sys.exit(main())
