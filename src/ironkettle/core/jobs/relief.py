"""What must be relieved before a spanner is put to what holds it back."""

from __future__ import annotations

from ironkettle.core.jobs.case import Case
from ironkettle.core.sheets.document.work import StepSpec


def relief_of(case: Case, step: StepSpec) -> dict[str, str]:
    """The steps that relieve what this one would let go of, with the words for it.

    A step that loosens a part's own fasteners waits for what relieves that part or a setting of it; one
    that opens a station waits for what relieves either of its zones.
    """
    if step.stage != "strip":
        return {}
    resolved = case.resolved
    found: dict[str, str] = {}
    held = {group.part for key in step.loosens if (group := resolved.groups.get(key)) and group.part}
    opened = {zone for key in step.opens if key in resolved.stations for zone in resolved.stations[key].between}
    names = {key: part.name for key, part in resolved.parts.items()} | resolved.zone_names
    for other in resolved.sheet.steps:
        if other.key == step.key or other.stage not in {"safe", "strip"}:
            continue
        for key in other.relieves:
            if key in held or key in opened:
                found[f"step:{other.key}"] = f"{names.get(key, key)} is not relieved yet"
    return found
