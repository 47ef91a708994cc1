"""A sheet that contradicts itself is refused at its place. Widths across flats: ISO 272 (M16 24 mm, M10 16 mm)."""

from __future__ import annotations

import pytest

from ironkettle.core.sheets.soundness.check import check_text
from tests.tiny import TABLES, UNITS


def faults(key: str, was: str, now: str) -> list[tuple[str, str]]:
    text = (UNITS / f"{key}.yaml").read_text(encoding="utf-8")
    assert was in text
    return [(fault.field, fault.message) for fault in check_text(text.replace(was, now), TABLES).faults]


@pytest.mark.parametrize(
    ("key", "was", "now", "says"),
    [
        ("weed-skip-ram", "24 mm socket", "36 mm socket", "a 36 mm socket fits no hexagon of Piston nut, M16"),
        ("loader-lift-ram", "24 mm socket", "17 mm socket", "a 17 mm socket fits no hexagon of Piston bolt, M16"),
        (
            "jetting-pump-box", "tightens: [nut-turns, nut-turns-fine],",
            "tightens: [nut-turns, nut-turns-fine], mark: {key: other, count: 1, across: [nut, box]},",
            "Box nut, coarse thread is tightened after the mark across it is made",
        ),
        (
            "boring-head", "name: Rear head against the front, part: rear-head, thread: M60x2",
            "name: Rear head against the front, part: rear-head, thread: M60x3",
            "Rear head to the bottom has M60x2 on the same part: one of them",
        ),
        ("loader-lift-ram", "rod lip seal 45 × 55 × 8", "rod lip seal 40 × 50 × 8", "40 × 50 × 8 for the rod lip seal: 40 mm inside"),
        (
            "fuel-injector", "side: plain face,", "", "seat washer faces a zone, and no mark or side tells which face of it",
        ),
        (
            "net-pen-compressor", "size: 50 × 56 × 1, lubricant: silicone_grease,", "size: 50 × 56 × 1, lubricant: dry,",
            "the step says silicone, and nothing it closes is fitted with it",
        ),
        (
            "swing-bridge-ram", "Let the body cool until it can be held", "Let the body cool for half an hour",
            "the text says 30 min: give the step a timer of 30 min, or the test it runs",
        ),
        (
            "fuel-injector", "Carbon soaked off in the bath, wiped", "Carbon soaked off for two hours, wiped",
            "the text says 2 h: give the step a timer of 120 min, or the test it runs",
        ),
    ],
)  # fmt: skip
def test_what_is_said_in_two_ways_is_a_fault_at_its_place(key: str, was: str, now: str, says: str) -> None:
    found = faults(key, was, now)
    assert any(says in message for _, message in found), found


def test_a_burr_is_not_honed() -> None:
    found = faults("loader-lift-ram", "how: half-round file then paper", "how: hone it lightly")
    assert [message for _, message in found] == ["a burr is not honed: hone it lightly"]


def test_a_socket_has_to_fit_one_of_the_threads_that_are_turned_with_it() -> None:
    """A bolt of M16 and a screw of M6: 24 mm is for the one, and nothing is wrong with that."""
    text = (UNITS / "loader-lift-ram.yaml").read_text(encoding="utf-8")
    both = text.replace("loosens: [piston-bolt]", "loosens: [piston-bolt, set-screw]").replace(
        "{key: set-screw, name: Set screw of the gland, part: set-screw,",
        "{key: set-screw, name: Set screw of the gland, part: set-screw, thread: M6,",
    )
    assert both.count("M6") == 1
    found = [fault for fault in check_text(both, TABLES).faults if "socket" in fault.message]
    assert found == []
