"""Where a leak is seen names the stations that can let it there; each ram's and valve's reasoned by hand from its section."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs.kinds.leak import suspects
from ironkettle.core.jobs.task import Status
from tests.bench import Job
from tests.tiny import plug, sheet_of, unit


def seen(key: str, zone: str) -> list[tuple[str, int]]:
    job = Job(sheet_of(unit(key)))
    job.do({"kind": "leak_seen", "zone": zone})
    return [(suspect.station, suspect.distance) for suspect in suspects(job.case())]


def test_oil_at_the_rod_comes_through_the_gland_first_and_past_the_piston_never() -> None:
    # The rod side presses on rod seal and gland ring; the cap side cannot reach the air without passing the rod side,
    # which pushes as hard: the way ends there.
    found = seen("swing-bridge-ram", "outside")
    assert {station for station, distance in found if distance == 1} >= {"rod-seal", "gland-bore"}
    assert "piston-bore" not in dict(found)


def test_a_tank_that_overfills_names_both_seals_of_the_valve() -> None:
    stations = [station for station, _ in seen("header-tank-valve", "tank")]
    assert stations == [one.key for one in sheet_of(unit("header-tank-valve")).stations]


def test_dry_names_none_and_a_second_look_counts() -> None:
    job = Job(sheet_of(plug()))
    assert suspects(job.case()) == ()
    assert job.task("leak").asks[0].choices[0].key == "none"
    job.do({"kind": "leak_seen", "zone": "none"})
    assert suspects(job.case()) == ()
    assert job.task("leak").status is Status.DONE
    job.do({"kind": "leak_seen", "zone": "air", "note": "after it was wiped dry"})
    (one,) = suspects(job.case())
    assert (one.station, one.source, one.look) == ("ring-place", "oil side", "look at plug ring")
    assert job.task("find:ring").why == "suspect: the leak to open air may have come through here"


def test_an_unknown_place_is_refused() -> None:
    with pytest.raises(RuleError) as refused:
        Job(sheet_of(plug())).do({"kind": "leak_seen", "zone": "teapot"})
    assert refused.value.faults[0].field == "zone"
