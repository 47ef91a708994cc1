"""A hold judged by the shop's rules, and what of it is looked at."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from ironkettle.core.machine.pressure import (
    Analysis,
    Compliance,
    Sample,
    TestVolume,
    analyse_hold,
)
from tests.core.machine.pressure.rig import GAUGE, SOFT, VOLUME

# A thermometer that reads and hardly moves.
STEADY = lambda t: 22.0 + 0.1 * (int(t) // 20 % 2)  # noqa: E731


MEASURED = replace(VOLUME, compliance=Compliance(2.0, 2.0 / SOFT))


LIMIT = 0.5


def judge(samples: tuple[Sample, ...], volume: TestVolume = VOLUME, **options: Any) -> Analysis:
    settings_: dict[str, Any] = {"gauge": GAUGE, "limit": LIMIT, "wanted": 21.0, **options}
    return analyse_hold(samples, volume, settings_.pop("gauge"), settings_.pop("limit"), **settings_)


def first_verdict(samples: tuple[Sample, ...], volume: TestVolume = VOLUME, **options: Any) -> Analysis:
    """Looked at with every reading that comes, closed at the first verdict, as an impatient operator does."""
    found = None
    for count in range(3, len(samples) + 1):
        found = judge(samples[:count], volume, **options)
        if found.verdict in {"pass", "fail", "invalid"}:
            return found
    assert found is not None
    return found


def codes(found: Analysis) -> set[str]:
    return {finding.code for finding in found.findings}
