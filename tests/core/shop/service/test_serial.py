"""Serials: how one was typed makes no other unit of it."""

from __future__ import annotations

import pytest

from ironkettle.core.shop.service import serial_key


@pytest.mark.parametrize("typed", ["FN-9021", "fn-9021", " Fn - 9021 ", "FN-9021\u00a0"])
def test_spaces_and_case_do_not_count(typed: str) -> None:
    assert serial_key(typed) == "fn-9021"


@pytest.mark.parametrize("other", ["FN9021", "FN-09021", "FN-9O21", "FN.9021"])
def test_what_a_maker_tells_units_apart_by_counts(other: str) -> None:
    assert serial_key(other) != serial_key("FN-9021")
