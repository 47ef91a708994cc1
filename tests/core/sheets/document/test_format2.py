"""What format 2 takes and refuses where it is written, and the several ways in which the same may be said."""

from __future__ import annotations

from typing import Annotated, Any

import pytest
from pydantic import Field, TypeAdapter, ValidationError

from ironkettle.core.sealing.catalogue import ElementKind
from ironkettle.core.sealing.grooves import Motion
from ironkettle.core.sheets.document.fastening import Phase, SettingSpec
from ironkettle.core.sheets.document.parts import Material, PartSpec
from ironkettle.core.sheets.document.places import ElementSpec, SeatSpec, StationMotion, ZoneSpec
from ironkettle.core.sheets.document.solids import Bar, Outline, Tube
from ironkettle.core.sheets.document.supplies import KitLine
from ironkettle.core.sheets.document.trials import TestSpec
from ironkettle.core.sheets.document.work import StepSpec


def read(union: Any, tag: str, document: dict[str, Any]) -> Any:
    """An item of a list whose kinds are told apart by a field."""
    return TypeAdapter(Annotated[union, Field(discriminator=tag)]).validate_python(document)


def solids(solid: Any) -> list[Any]:
    return list(PartSpec.model_validate({"key": "p", "name": "P", "solid": solid}).solid)


BAR = {"from": 0, "to": 4, "outer": 3}


@pytest.mark.parametrize(
    "solid",
    [
        {"bar": BAR},
        [{"bar": BAR}],
        {"shape": "bar", **BAR},
        [{"shape": "bar", **BAR}],
        [{"body": {"shape": "bar", **BAR}}],
    ],
)
def test_a_solid_may_be_written_in_several_ways(solid: Any) -> None:
    (one,) = solids(solid)
    assert one.body == Bar.model_validate(BAR)
    assert (one.cut, one.view, one.axis) == ([], None, 0.0)


def test_what_stands_beside_a_primitive_or_in_it_belongs_to_its_solid() -> None:
    cut = [{"bar": {"from": 0, "to": 1, "outer": 1}}]
    beside = solids({"bar": BAR, "view": "end", "axis": 5, "cut": cut})
    within = solids({"bar": BAR | {"view": "end", "axis": 5, "cut": cut}})
    assert beside == within
    assert (beside[0].view, beside[0].axis, len(beside[0].cut)) == ("end", 5.0, 1)
    # Two primitives in one mapping are two solids with the same view.
    both = solids({"bar": BAR, "tube": {"from": 0, "to": 1, "inner": 1, "outer": 2}, "view": "end"})
    assert {type(one.body) for one in both} == {Bar, Tube}
    assert [one.view for one in both] == ["end", "end"]
    (outlined,) = solids({"outline": [[0, 0], [1, 0], [1, 1]]})
    assert outlined.body == Outline(points=[(0, 0), (1, 0), (1, 1)])
    (shaped,) = solids({"shape": "outline", "points": [[0, 0], [1, 0], [1, 1]]})
    assert shaped == outlined
    assert solids({"bar": BAR, "cut": [{"outline": [[0, 0], [1, 0], [1, 1]]}]})[0].cut[0] == outlined.body
    assert solids(None) == []


@pytest.mark.parametrize(
    "solid",
    [
        {"bar": {"from": 4, "to": 4, "outer": 3}},
        {"tube": {"from": 0, "to": 1, "inner": 3, "outer": 3}},
        {"tube": {"from": 0, "to": 1, "outer": 3}},
        {"cone": {"from": 0, "to": 1, "outer": [1, 2], "inner": [0, 2.5]}},
        {"ball": {"at": 1, "radius": 0}},
        {"bar": BAR, "colour": "red"},
        {"bar": BAR | {"inner": 1}},
        {"rope": BAR},
        {"outline": [[0, 0], [1, 0]]},
        {"bar": BAR, "cut": [{"bar": BAR, "tube": {"from": 0, "to": 1, "inner": 1, "outer": 2}}]},
        {"bar": BAR, "cut": [{"bar": BAR, "extra": 1}]},
        {"bar": BAR, "cut": [{"rope": BAR}]},
        {"bar": {"from": -6000, "to": 0, "outer": 3}},
    ],
)
def test_solids_that_cannot_be(solid: Any) -> None:
    with pytest.raises(ValidationError):
        solids(solid)


@pytest.mark.parametrize(
    "phase",
    [
        {"to": "torque"},
        {"to": "torque", "low": "5 N·m"},
        {"to": "torque", "high": "5 N·m"},
        {"to": "torque", "low": "4 N·m", "target": "5 N·m"},
        {"to": "torque", "high": "4 N·m", "target": "5 N·m"},
        {"to": "turns"},
        {"to": "slot"},
        {"to": "mark"},
        {"to": "gap"},
        {"to": "torque", "target": "5 N·m", "passes_pct": [60]},
        {"to": "torque", "target": "5 N·m", "passes_pct": [60, 60, 100]},
        {"to": "torque", "target": "5 N·m", "passes_pct": [70, 60, 100]},
        {"to": "torque", "target": "5 N·m", "tolerance_pct": 50},
        {"to": "turns", "turns": 0},
    ],
)
def test_phases_that_say_too_little_or_too_much(phase: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        read(Phase, "to", phase)


@pytest.mark.parametrize(
    "phase",
    [
        {"to": "hand"},
        {"to": "loosen"},
        {"to": "stop"},
        {"to": "torque", "low": "4 N·m", "high": "5 N·m", "passes_pct": [30, 70, 100]},
        {"to": "torque", "target": "5 N·m"},
        {"to": "turns", "turns": 0.25},
        {"to": "turns", "turns": [0.6, 0.8], "back": True},
        {"to": "slot", "slots": 6},
        {"to": "mark", "mark": "m"},
        {"to": "gap", "gap": ["1 mm", "4 mm"]},
    ],
)
def test_phases_as_the_format_has_them(phase: dict[str, Any]) -> None:
    assert read(Phase, "to", phase).to == phase["to"]


@pytest.mark.parametrize("kind", ["preset", "edge", "target", "contact"])
def test_a_setting_holds_the_figures_of_its_kind(kind: str) -> None:
    figures = {
        "preset": {"bottom": "clockwise", "turns": 2},
        "edge": {"open": "clockwise", "sign": "a hiss", "close_plus_deg": 30},
        "target": {"reading": "pressure", "value": "280 bar +10/-0"},
        "contact": {"until": "it touches"},
    }
    read(SettingSpec, "kind", {"key": "s", "name": "S", "kind": kind, kind: figures[kind]})
    other = "contact" if kind != "contact" else "preset"
    with pytest.raises(ValidationError, match=rf"{kind}\n  Field required"):
        read(SettingSpec, "kind", {"key": "s", "name": "S", "kind": kind, other: figures[other]})


@pytest.mark.parametrize(
    ("kind", "figures"),
    [
        ("pressure_hold", {"pressure": "10 bar", "volume": "1 l", "medium": "water", "leak_limit": "1 ml/min"}),
        ("drift", {"limit": "1 mm"}),
        ("opening_pressure", {"value": "280 bar"}),
        ("set_point", {"value": "4 bar"}),
        ("effort", {"value": "1.4 inH2O"}),
        ("friction", {"breakaway": "2 bar"}),
        ("count", {"what": "drops", "limit": "5"}),
        ("pump_up", {"volume": "10 l", "to": "1.5 bar", "within": "40 s"}),
        ("reading", {"quantity": "vacuum", "limit": "-0.6 bar"}),
        ("function", {"sign": "no drop"}),
    ],
)
def test_a_test_needs_the_figures_of_its_kind(kind: str, figures: dict[str, str]) -> None:
    read(TestSpec, "kind", {"key": "t", "name": "T", "kind": kind, **figures})
    for missing in figures:
        with pytest.raises(ValidationError, match=rf"{missing}\n  Field required"):
            read(
                TestSpec,
                "kind",
                {"key": "t", "name": "T", "kind": kind, **{k: v for k, v in figures.items() if k != missing}},
            )


def test_short_forms_stand_for_long_ones() -> None:
    element = ElementSpec.model_validate(
        {"key": "e", "name": "E", "kind": "o_ring", "ring": "JIS B 2401 P20", "marks": "dot"}
    )
    assert element.ring is not None
    assert (element.ring.series, element.ring.designation) == ("JIS B 2401", "P20")
    assert element.marks == ["dot"]
    assert element.kind is ElementKind.O_RING
    step = StepSpec.model_validate({"key": "s", "stage": "strip", "text": "x", "note": "how much", "takes_off": "lid"})
    assert step.note is not None
    assert (step.note.ask, step.takes_off, step.after) == ("how much", ["lid"], None)
    part = PartSpec.model_validate({"key": "p", "name": "P", "marks": ["top", {"word": "arrow", "faces": "outlet"}]})
    assert [(mark.word, mark.faces) for mark in part.marks] == [("top", None), ("arrow", "outlet")]
    line = KitLine.model_validate(
        {"key": "k", "name": "K", "element": "a", "elements": ["b"], "part": ["c"], "parts": "d"}
    )
    assert (line.all_elements, line.all_parts, line.count) == (("a", "b"), ("c", "d"), 1)
    zone = ZoneSpec.model_validate(
        {"key": "z", "name": "Z", "kind": "drain", "seed": [1, 2], "seeds": [{"at": [3, 4]}]}
    )
    assert [seed.at for seed in zone.all_seeds] == [(1, 2), (3, 4)]


def test_soft_materials_and_what_rolls() -> None:
    assert {m for m in Material if m.soft} >= {Material.ALUMINIUM, Material.BRASS, Material.PLASTIC, Material.BRONZE}
    assert not {Material.STEEL, Material.CAST_IRON, Material.STAINLESS} & {m for m in Material if m.soft}
    assert StationMotion.ROLLING.of_groove is Motion.STATIC
    assert StationMotion.ROTARY.of_groove is Motion.ROTARY


def test_a_seat_of_each_kind_needs_its_figures() -> None:
    with pytest.raises(ValidationError, match=r"(?s)shaft\n  Field required.*length\n  Field required"):
        read(SeatSpec, "kind", {"kind": "press_in", "at": 0, "bore": "5 mm"})
    with pytest.raises(ValidationError, match=r"(?s)at\n  Field required.*rod\n  Field required"):
        read(SeatSpec, "kind", {"kind": "rod", "groove_diameter": "5 mm", "groove_width": "2 mm"})
