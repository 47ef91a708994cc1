"""Two versions side by side, and a sheet found by a few words."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.sheets.document import differences, document_of
from ironkettle.core.sheets.document.finder import found_by
from tests.tiny import UNITS, plug, sheet_of, unit


def changed(**changes: Any) -> dict[str, tuple[str | None, str | None]]:
    found = differences(sheet_of(plug()), sheet_of(plug(**changes)))
    return {one.path: (one.before, one.after) for one in found}


def test_a_sheet_differs_from_itself_in_nothing() -> None:
    assert changed() == {}


def test_a_figure_that_changed_is_told_under_its_place_by_key() -> None:
    told = changed(stations__0__seats__0__bore="20 mm +0.033/-0")
    assert list(told) == ["stations.ring-place.seats.1.bore"]
    assert changed(parts__0__material="brass") == {"parts.body.material": ("steel", "brass")}


def test_what_was_added_and_taken_out_stands_alone() -> None:
    told = changed(parts__append={"key": "clip", "name": "Clip"})
    assert told == {"parts.clip": (None, "key clip, name Clip")}
    # What is left of a list that became empty is nothing.
    assert changed(kits__0=None) == {
        "kits": ("number T-1, name Kit, lines key k-ring, name O-ring 16 × 2.5, element ring", None)
    }


def test_the_order_in_a_list_of_keyed_things_is_no_difference() -> None:
    turned = plug()
    turned["zones"].reverse()
    assert differences(sheet_of(plug()), sheet_of(turned)) == ()


@pytest.mark.parametrize("key", sorted(path.stem for path in UNITS.glob("*.yaml")))
def test_a_document_reads_back_as_the_same_sheet(key: str) -> None:
    sheet = sheet_of(unit(key))
    assert sheet_of(document_of(sheet)) == sheet


@pytest.mark.parametrize(
    ("words", "by"),
    [
        ("fn-k-5028", "kit FN-K-5028"),
        ("50 28", "bore 50 mm, rod 28 mm"),
        ("28,3", "bore 50 mm, rod 28 mm"),
        ("50.6", None),
        ("latch ram", "name Swing bridge latch ram"),
        ("ram latch wire", "its words"),
        ("", None),
        ("   ", None),
        ("pump", None),
    ],
)
def test_a_sheet_is_found_by_its_words_or_sizes(words: str, by: str | None) -> None:
    assert found_by(sheet_of(unit("swing-bridge-ram")), words) == by
