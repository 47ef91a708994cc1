"""Entries of the seal formats before this one, read as what they are called now.

The sealed text stays as it was written, and so does its hash; only its reading is carried over.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import TypeAlias

from ironkettle.core.base.json import Json, JsonObject, json_list, json_object
from ironkettle.core.jobs.runs import SampleRead, chunks_of, plain
from ironkettle.core.machine.pressure import Sample
from ironkettle.core.sheets.document.sheet import Sheet

_Document: TypeAlias = JsonObject
_TRAY = {"scrap": "old part to scrap", "reuse": "old part to reuse"}


def kit_of(sheet: Sheet) -> dict[str, str]:
    """The kit that each line belongs to, by key; a count once named the line alone."""
    return {line.key: kit.number for kit in sheet.kits for line in kit.lines}


def carried_over(entry: JsonObject, kits: Mapping[str, str]) -> _Document:
    """An entry's document of format 1 or 2 as one of format 3. Kinds that did not change stay as they are."""
    document = dict(entry)
    payload = dict(json_object(document["payload"]))
    change = _CHANGED.get(str(payload.get("kind")))
    if change is not None:
        payload = change(payload, kits)
    samples = [SampleRead.model_validate(sample) for sample in json_list(payload.pop("samples", []))]
    if samples:
        document["chunks"] = [seal.model_dump() for seal, _ in chunks_of(samples)]
    document["payload"] = payload
    return under_its_names(document)


def under_its_names(entry: JsonObject) -> _Document:
    """An entry's document of format 3 as one of format 4: a quick service was called *care*."""
    payload = dict(json_object(entry["payload"]))
    if payload.get("kind") == "care_widened":
        payload["kind"] = "service_widened"
    if "care" in payload:
        payload["quick_service"] = payload.pop("care")
    return {**entry, "payload": payload}


def samples_within(entry: JsonObject) -> tuple[Sample, ...]:
    """The samples that stand in the text of an entry of format 1 or 2. [s, MPa, °C]"""
    return plain(
        SampleRead.model_validate(sample) for sample in json_list(json_object(entry["payload"]).get("samples", []))
    )


def _joined(*parts: Json) -> str:
    return "; ".join(str(part) for part in parts if part)


def _found(old: _Document, _kits: Mapping[str, str]) -> _Document:
    tray = _TRAY.get(str(old.pop("tray", "later")), "")
    return old | {"note": _joined(old.get("note", ""), tray)}


def _size(old: _Document, _kits: Mapping[str, str]) -> _Document:
    names = ("element", "inside_diameter", "section", "condition", "reason")
    kept: _Document = {name: old[name] for name in names if name in old}
    return {"kind": "size_chosen", "size": f"{old['series']} {old['designation']}", **kept}


def _kit(old: _Document, kits: Mapping[str, str]) -> _Document:
    line: _Document = {"line": old["line"], "counted": old["counted"], "used": old.get("decision", "use") == "use"}
    ordered = "rest ordered apart" if old.get("ordered") else ""
    note = _joined(old.get("note", ""), ordered)
    return {"kind": "kit_counted", "kit": kits.get(str(old["line"]), "?"), "lines": [line], "note": note}


def _arrived(old: _Document, _kits: Mapping[str, str]) -> _Document:
    return {"kind": "part_arrived", "what": old["line"], "counted": old["counted"], "note": old.get("note", "")}


def _tightened(old: _Document, _kits: Mapping[str, str]) -> _Document:
    return {
        "kind": "group_tightened",
        "group": old["group"],
        "phase": 0,
        "turn": old["round"],
        "readings": [{"number": old["number"], "reading": old["reading"]}],
        "wrench": json_object(old["wrench"])["name"],
        "wrench_used": old["wrench"],
    }


def _noted(old: _Document, _kits: Mapping[str, str]) -> _Document:
    return {"kind": "note_made", "text": old["text"]}


def _released(old: _Document, _kits: Mapping[str, str]) -> _Document:
    return {"kind": "released", "remark": old.get("statement", ""), "next_service": old.get("next_service")}


_CHANGED: dict[str, Callable[[_Document, Mapping[str, str]], _Document]] = {
    "element_found": _found,
    "ring_chosen": _size,
    "kit_counted": _kit,
    "part_arrived": _arrived,
    "fastener_tightened": _tightened,
    "note_made": _noted,
    "released": _released,
}
