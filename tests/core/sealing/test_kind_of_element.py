"""A made-up kind of sealing element is one row: named, drawn, turned, put in order, explained where it failed."""

from __future__ import annotations

from dataclasses import replace
from types import MappingProxyType

import pytest

from ironkettle.core.sealing import catalogue
from ironkettle.core.sealing.catalogue import KINDS, ElementKind, Group, KindFacts, Law
from ironkettle.core.sealing.facing import Element, Station, Zone, ZoneKind, orient
from ironkettle.core.sealing.failures.model import Sign
from ironkettle.core.sheets.drawing.profiles import profile
from ironkettle.reference import failure_table


def made_up(name: str) -> ElementKind:
    """A kind the list does not have."""
    kind = str.__new__(ElementKind, name)
    kind._name_, kind._value_ = name.upper(), name
    return kind


CUFF = made_up("cuff")
ROW = KindFacts(
    "cuff", Group.LIP, Law.HELD, "turned-up edge", outline=((0, 0), (1, 0), (0.5, 1)), rigid=True, lubricated=True,
    reversed="it was folded back: the likely cause of the leak",
)  # fmt: skip


@pytest.fixture
def _with_cuff(monkeypatch: pytest.MonkeyPatch) -> None:
    assert isinstance(KINDS, dict)
    monkeypatch.setitem(KINDS, CUFF, ROW)


OIL, OUTSIDE = Zone("oil", ZoneKind.PRESSURE, 18.0), Zone("outside", ZoneKind.ATMOSPHERE)
GLAND = Station("gland", ("oil", "outside"), (Element("cuff", CUFF),), entered_from="outside")


@pytest.mark.usefixtures("_with_cuff")
def test_its_way_round_follows_from_its_law() -> None:
    (station,) = orient((OIL, OUTSIDE), (GLAND,)).stations
    (element,) = station.elements
    assert (element.faces, element.word) == ("oil", "turned-up edge")
    assert "turned-up edge towards" in element.instruction


@pytest.mark.usefixtures("_with_cuff")
def test_found_reversed_it_says_what_comes_of_it() -> None:
    told = orient((OIL, OUTSIDE), (GLAND,), {"cuff": "outside"})
    assert any("it was folded back: the likely cause of the leak" in finding.message for finding in told.findings)


@pytest.mark.usefixtures("_with_cuff")
def test_it_is_drawn_by_its_outline_and_fails_as_its_group() -> None:
    outline = profile(CUFF, (10.0, 4.0, 20.0, 6.0), opens_right=True)
    assert outline == ((10.0, 4.0), (20.0, 4.0), (15.0, 6.0))
    # A table of its own: the shipped one is kept.
    offered = replace(failure_table()).offered
    assert offered[CUFF] == offered[ElementKind.LIP_SEAL]
    assert Sign.LIP_TORN in {offer.sign for offer in offered[CUFF]}


def test_every_kind_has_its_row_and_a_reader_of_rows_knows_no_kind() -> None:
    assert set(KINDS) == set(ElementKind)
    assert catalogue.has_law(Law.BEVEL) == {ElementKind.SLIDE_RING}
    assert MappingProxyType(dict(KINDS))[ElementKind.SPACER].group is Group.HARD
