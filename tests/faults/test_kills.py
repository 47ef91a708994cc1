"""A short run of kills; ``./kettle bench faults`` is the long one."""

from __future__ import annotations

from ironkettle.benchmarks.faults import endure


def test_nothing_acknowledged_is_lost_when_server_and_database_are_killed() -> None:
    outcome = endure(4, 2, seed=2026)
    assert (outcome.server_kills, outcome.database_kills) == (4, 2)
    # Enough was written between the kills for the answer to mean something.
    assert len(outcome.acknowledged) > 30
    assert outcome.lost == set()
    assert outcome.broken_chains == 0
