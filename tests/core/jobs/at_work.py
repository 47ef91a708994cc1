"""Demo jobs walked up to a task, and what is told of them there."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.base.errors import RuleError
from tests.bench import Job, filled
from tests.tiny import plug, sheet_of, unit


def at(key: str, task: str, **changes: Any) -> Job:
    """A job of a demo unit walked up to a task."""
    document = unit(key)
    for name, value in changes.items():
        document[name] = value
    job = Job(sheet_of(document))
    job.walk(until=lambda one: one.key == task)
    return job


def plugged(**changes: Any) -> Job:
    return Job(sheet_of(plug(**changes)))


def fields(caught: pytest.ExceptionInfo[RuleError]) -> list[str]:
    return [fault.field for fault in caught.value.faults]


DRY = {"kind": "leak_seen", "zone": "none"}


def counted(job: Job, **short: int) -> dict[str, Any]:
    """The count of the kit with these lines counted otherwise."""
    task = next(one for one in job.tasks() if one.kind.key == "count")
    payload = filled(task)
    for line in payload["lines"]:
        line["counted"] = short.get(line["line"], line["counted"])
    return payload


def hold(**changes: Any) -> dict[str, Any]:
    return {
        "key": "hold", "name": "Hold", "zone": "oil", "pressure": "100 bar", "volume": "400 ml",
        "medium": "mineral oil ISO VG 46", "bulk_modulus_gpa": 1.4, "leak_limit": "1 ml/min",
    } | changes  # fmt: skip


def run(job: Job, key: str = "test:hold:as_left", **changes: Any) -> dict[str, Any]:
    return filled(job.task(key)) | changes
