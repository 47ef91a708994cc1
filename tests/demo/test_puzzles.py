"""Every puzzle's answer stands under the rules, and every unit of the demo is made up and checked."""

from __future__ import annotations

import pytest

from ironkettle.api.sealing.grooves import GrooveBody
from ironkettle.api.shop.ring_puzzles import reasoning
from ironkettle.core.sealing.grooves import search_rings
from ironkettle.core.shop.settings import ShopSettings
from ironkettle.demo.puzzles import Puzzle, puzzles
from ironkettle.reference import ring_table
from ironkettle.store.shop.tables import gland_tables

SETTINGS = ShopSettings({})


def test_there_are_enough_and_of_every_kind() -> None:
    found = puzzles()
    assert len(found) >= 25
    assert len({one.key for one in found}) == len(found)
    assert {one.kind for one in found} == {"size", "undecided", "wrong_ring", "missing_backup"}
    for one in found:
        assert one.answer in {choice.key for choice in one.choices}, one.key
    # The answer is not always the first to be offered.
    assert len({one.answer for one in found}) >= 3


@pytest.mark.parametrize("puzzle", puzzles(), ids=lambda puzzle: puzzle.key)
def test_the_answer_stands_under_the_rules(puzzle: Puzzle) -> None:
    seen = reasoning(puzzle, puzzle.answer, SETTINGS)
    assert seen.right
    first = None if seen.match is None else seen.match.candidates[0]
    if puzzle.kind == "size":
        assert first is not None
        assert seen.match is not None
        assert puzzle.ring is not None
        assert (first.series, first.designation) == (puzzle.ring.series, puzzle.ring.designation)
        assert seen.match.decided or puzzle.groove is not None
    elif puzzle.kind == "undecided":
        assert seen.match is not None
        assert not seen.match.decided
        assert seen.match.next_measurement is not None
        assert seen.match.next_measurement.read == puzzle.measure
    elif puzzle.kind == "wrong_ring":
        assert first is not None
        assert puzzle.groove is not None
        assert puzzle.ring is not None
        alone = puzzle.model_copy(update={"groove": None, "ring": None})
        came_out = reasoning(alone, puzzle.answer, SETTINGS).ring
        assert came_out is not None
        gland = GrooveBody(**puzzle.groove).gland()
        fitting = search_rings(gland, ring_table(), gland_tables(SETTINGS), limit=50).fits
        names = {(s.series, s.designation) for fit in fitting for s in (fit.size, *fit.also)}
        assert (puzzle.ring.series, puzzle.ring.designation) in names
        assert (came_out.series, came_out.designation) not in names
    else:
        assert seen.check is not None
        assert "backup-missing" in {finding.code for finding in seen.check.findings}
