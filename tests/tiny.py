"""The smallest sheets there are, for tests of the format: a plug with a ring in a bore, and what is changed in it."""

from __future__ import annotations

import copy
from functools import cache
from pathlib import Path
from typing import Any

from ironkettle.core.base.errors import FieldFault
from ironkettle.core.sheets.document.sheet import Sheet
from ironkettle.core.sheets.document.text import read_document
from ironkettle.core.sheets.soundness import SheetTables, Soundness
from ironkettle.core.sheets.soundness.check import check_document
from ironkettle.reference import cleaning, compounds, fastener_tables, fluids, ring_table

UNITS = Path(__file__).resolve().parents[1] / "src/ironkettle/demo/sheets"
DEMO_JOBS = len(read_document((UNITS.parent / "workshop.yaml").read_text(encoding="utf-8"))["jobs"])
TABLES = SheetTables(ring_table(), fastener_tables(), fluids(), compounds(), cleaning())

# A plug of 20 mm in a body with a blind bore; oil at its end, air outside; one O-ring in a groove of 2.05 mm depth.
PLUG: dict[str, Any] = {
    "format": "iron-kettle/build-sheet/2",
    "key": "plug",
    "version": 1,
    "name": "Test plug",
    "family": "other",
    "service": {"medium": "oil", "fluids": ["mineral oil ISO VG 46"], "pressure": "100 bar"},
    "zones": [
        {"key": "oil", "name": "oil side", "kind": "pressure", "pressure": "100 bar", "seeds": [{"at": [8, 5]}]},
        {"key": "air", "name": "open air", "kind": "atmosphere"},
    ],
    "parts": [
        {
            "key": "body",
            "name": "Body",
            "material": "steel",
            "solid": [{"bar": {"from": 0, "to": 5, "outer": 20}}, {"tube": {"from": 4, "to": 50, "inner": 10, "outer": 20}}],
        },
        {"key": "plug", "name": "Plug", "material": "steel", "solid": {"bar": {"from": 12, "to": 60, "outer": 9.95}}},
    ],
    "stations": [
        {
            "key": "ring-place",
            "name": "Plug in its bore",
            "between": ["oil", "air"],
            "unproven": "nothing is tested of a plug that seals nothing",
            "carrier": "plug",
            "counterface": "body",
            "entered_from": "oil",
            "seats": [
                {
                    "kind": "piston", "at": 25, "bore": "20 mm +0.021/-0", "groove_diameter": "15.9 mm +0/-0.05",
                    "groove_width": "3.4 mm +0.2/-0", "diametral_clearance": "0.1 mm ±0.02",
                    "elements": [{"key": "ring", "name": "plug ring", "kind": "o_ring", "ring": {"series": "metric", "designation": "16x2.5"}}],
                }
            ],
        }
    ],
    "steps": [
        {"key": "vent", "stage": "safe", "text": "Vent the oil side", "after": [], "relieves": ["oil"]},
        {"key": "out", "stage": "strip", "text": "Plug out", "takes_off": ["plug"], "opens": ["ring-place"]},
        {"key": "wash", "stage": "clean", "text": "Wash"},
        {"key": "in", "stage": "rebuild", "text": "Plug in", "puts_on": ["plug"], "closes": ["ring-place"]},
    ],
    "kits": [{"number": "T-1", "name": "Kit", "lines": [{"key": "k-ring", "name": "O-ring 16 × 2.5", "element": "ring"}]}],
}  # fmt: skip


def plug(**changes: Any) -> dict[str, Any]:
    """The plug's document with values changed: the path with double underscores, ``parts__1__solid=…``; None takes out."""
    document = copy.deepcopy(PLUG)
    for path, value in copy.deepcopy(changes).items():
        *way, last = path.split("__")
        at: Any = document
        for name in way:
            at = at[int(name)] if name.isdigit() else at.setdefault(name, {})
        if value is None:
            del at[int(last) if last.isdigit() else last]
        elif last == "append":
            at.append(value)
        elif last.isdigit():
            at[int(last)] = value
        else:
            at[last] = value
    return document


def checked(**changes: Any) -> Soundness:
    return check_document(plug(**changes), TABLES)


def faults(**changes: Any) -> list[FieldFault]:
    return checked(**changes).faults


def told(**changes: Any) -> dict[str, str]:
    return {fault.field: fault.message for fault in faults(**changes)}


def unit(key: str) -> dict[str, Any]:
    """The document of a demo unit, to be changed as the test likes."""
    return copy.deepcopy(_read(key))


@cache
def _read(key: str) -> dict[str, Any]:
    return read_document((UNITS / f"{key}.yaml").read_text(encoding="utf-8"))


def sheet_of(document: dict[str, Any]) -> Sheet:
    return Sheet.model_validate(document)
