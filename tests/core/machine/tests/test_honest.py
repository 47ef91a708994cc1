"""Every kind of test, over runs drawn from a plain world: what is beyond its limit is not passed, what is within is not failed."""

from __future__ import annotations

import pytest

from ironkettle.benchmarks.kinds import WORLDS, World, verdicts

RUNS, SEED = 200, 417
# One in twenty is what a verdict at 95 % allows; of 200 runs, with the scatter of so many draws.
MOST = 0.08
# These want each reading in the band too: one that scatters out of it is a fail of its own.
EACH_READING = {"opening_pressure", "set_point"}


@pytest.mark.parametrize("world", WORLDS, ids=lambda world: world.name)
@pytest.mark.parametrize("share", [1.02, 1.1, 1.5])
def test_what_is_beyond_its_limit_is_not_passed(world: World, share: float) -> None:
    found = verdicts(world, share, RUNS, SEED)
    assert found["pass"] <= MOST
    assert found["invalid"] == 0
    if share == 1.5:
        assert found["fail"] >= 0.95


@pytest.mark.parametrize("world", WORLDS, ids=lambda world: world.name)
@pytest.mark.parametrize("share", [0.5, 0.9, 0.98])
def test_what_is_within_its_limit_is_not_failed(world: World, share: float) -> None:
    found = verdicts(world, share, RUNS, SEED)
    if world.kind not in EACH_READING or share == 0.5:
        assert found["fail"] <= MOST
    if share == 0.5:
        assert found["pass"] >= 0.95
