"""A sheet is refused with every fault at its path; a sound one is not."""

from __future__ import annotations

from typing import Any

import pytest
import yaml

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sheets.soundness import check_text, read_text
from ironkettle.core.sheets.soundness.check import check_document
from tests.tiny import PLUG, TABLES, UNITS, checked, plug, told, unit


@pytest.mark.parametrize("path", sorted(UNITS.glob("*.yaml")), ids=lambda path: path.stem)
def test_every_demo_unit_is_sound_and_every_sealing_station_parts_its_zones(path: Any) -> None:
    found = check_text(path.read_text(encoding="utf-8"), TABLES)
    assert found.faults == []
    assert found.proof.parting
    assert all(found.proof.parting.values())
    assert found.sheet is not None
    assert {zone.key for zone in found.sheet.zones} == set(found.proof.area)


def test_the_tiny_plug_is_sound() -> None:
    found = checked()
    assert found.faults == []
    assert found.proof.parting == {"ring-place": True}
    # Oil: 7 mm of a bore of 10 mm radius, and the clearance of 0.05 mm (parts 0.02 smaller) up to the ring.
    assert found.proof.area["oil"] == pytest.approx(7.04 * 10.02, abs=2.0)


def test_a_sheet_comes_back_as_it_went_in() -> None:
    text = yaml.safe_dump(PLUG, allow_unicode=True)
    sheet = read_text(text, TABLES)
    again = check_document(sheet.model_dump(mode="json", by_alias=True, exclude_none=True), TABLES)
    assert again.faults == []
    assert again.sheet == sheet


@pytest.mark.parametrize(
    ("changes", "field", "words"),
    [
        ({"zones__append": {"key": "oil", "name": "x", "kind": "drain"}}, "zones", "“oil” is used 2 times"),
        ({"stations__0__between": ["oil", "moon"]}, "stations.0.between.1", "“moon” is not a zone"),
        ({"stations__0__between": ["oil", "oil"]}, "stations.0.between", "two different zones"),
        ({"stations__0__entered_from": "plug"}, "stations.0.entered_from", "not one of its two zones"),
        ({"stations__0__carrier": "lid"}, "stations.0.carrier", "“lid” is not a part"),
        ({"stations__0__counterface": "lid"}, "stations.0.counterface", "“lid” is not a part"),
        ({"stations__0__seats__0__elements__0__part": "lid"}, "stations.0.seats.0.elements.0.part", "not a part"),
        ({"stations__0__seats__0__elements__0__same_as": "ring"}, "stations.0.seats.0.elements.0.same_as", "not an element"),
        ({"stations__0__seats__0__elements__0__faces": "moon"}, "stations.0.seats.0.elements.0.faces", "two zones"),
        ({"stations__0__seats__0__elements__0__compound": "gum"}, "stations.0.seats.0.elements.0.compound", "gum"),
        ({"stations__0__seats__0__view": "top"}, "stations.0.seats.0.view", "“top” is not a view"),
        ({"zones__0__pressure": None}, "zones.0.pressure", "needed for a pressure zone"),
        ({"zones__0__pressure": "100"}, "zones.0.pressure", "unit"),
        ({"zones__0__seeds": [{"at": [8, 5], "view": "top"}]}, "zones.0.seeds.0.view", "not a view"),
        ({"steps__1__after": ["moon"]}, "steps.1.after.0", "“moon” is not a step"),
        ({"steps__1__takes_off": ["moon"]}, "steps.1.takes_off.0", "not a part"),
        ({"steps__1__opens": ["moon"]}, "steps.1.opens.0", "not a station"),
        ({"steps__1__loosens": ["moon"]}, "steps.1.loosens.0", "not a fastener group"),
        ({"steps__0__relieves": ["moon"]}, "steps.0.relieves.0", "not a part, zone or setting"),
        ({"steps__3__runs": ["moon"]}, "steps.3.runs.0", "not a test"),
        ({"steps__3__meets": ["moon"]}, "steps.3.meets.0", "not a mark"),
        ({"steps__3__sets": ["moon"]}, "steps.3.sets.0", "not a setting"),
        ({"steps__3__ahead_of": ["moon"]}, "steps.3.ahead_of.0", "not a part"),
        ({"steps__2__reads": [{"part": "plug", "point": "wear"}]}, "steps.2.reads.0.point", "not a point of plug"),
        ({"steps__2__reads": [{"part": "lid", "point": "wear"}]}, "steps.2.reads.0.part", "not a part"),
        ({"steps__1__mark": {"key": "m", "across": ["lid"]}}, "steps.1.mark.across.0", "not a part"),
        ({"steps__1__note": {"ask": "x", "again_at": "moon"}}, "steps.1.note.again_at", "not a step"),
        ({"steps__1__shows": "oil_to_drain"}, "cylinder", "is needed"),
        ({"kits__0__lines__0__element": "moon"}, "kits.0.lines.0.elements.0", "not an element"),
        ({"kits__0__lines__0__part": "moon"}, "kits.0.lines.0.parts.0", "not a part"),
        ({"steps__1__only": {"school": ["a"]}}, "steps.1.only", "“school” is not a question"),
        ({"tests": [{"key": "t", "name": "T", "kind": "function", "sign": "x", "zone": "moon"}]}, "tests.0.zones.0", "zone"),
        ({"tests": [{"key": "t", "name": "T", "kind": "function", "sign": "x", "after": ["q"]}]}, "tests.0.after.0", "step"),
        ({"intervals": [{"of": "moon", "every": "1 year", "what": "look"}]}, "intervals.0.of", "not a part"),
        ({"ladders": [{"part": "moon", "rungs": [{"key": "a", "do": "x"}]}]}, "ladders.0.part", "not a part"),
        ({"positions": [{"key": "p", "name": "P", "of": [1, 2], "parts": ["moon"]}]}, "positions.0.parts.0", "not a part"),
        ({"fasteners": [{"key": "f", "name": "F", "part": "moon", "phases": [{"to": "hand"}]}]}, "fasteners.0.part", "part"),
    ],
)  # fmt: skip
def test_names_that_name_nothing(changes: dict[str, Any], field: str, words: str) -> None:
    found = told(**changes)
    assert field in found, found
    assert words in found[field]


@pytest.mark.parametrize(
    ("changes", "field", "words"),
    [
        ({"stations__0__seats__0__bore": "20"}, "stations.0.seats.0.bore", "unit"),
        ({"stations__0__seats__0__groove_diameter": "21 mm"}, "stations.0.seats.0.groove_diameter", "smaller than"),
        ({"stations__0__seats__0__groove_width": None}, "stations.0.seats.0.groove_width", "is needed"),
        ({"stations__0__seats__0__elements__0__ring": "AS568 999"}, "stations.0.seats.0.elements.0.ring.designation", "999"),
        ({"service__temperature": ["70 °C", "10 °C"]}, "service.temperature", "not below"),
        ({"service__temperature": ["warm", "70 °C"]}, "service.temperature.0", "temperature"),
        ({"cylinder": {"bore": "50 mm", "rod": "60 mm", "stroke": "80 mm"}}, "cylinder.rod", "bore"),
        ({"parts__1__material": "cheese"}, "parts.1.material", ""),
        ({"parts__1__points": [{"key": "p", "ask": "x", "read": "length"}]}, "parts.1.points.0.limit", "is needed"),
        ({"parts__1__points": [{"key": "p", "ask": "x", "read": "length", "limit": "at most 3"}]}, "parts.1.points.0.limit", "unit"),
        ({"fasteners": [{"key": "f", "name": "F", "phases": [{"to": "turns", "turns": 1}]}]}, "fasteners.0.thread", "turns and slots"),
        ({"fasteners": [{"key": "f", "name": "F", "thread": "M9¾", "phases": [{"to": "hand"}]}]}, "fasteners.0.thread", "not a recognised thread"),
        ({"fasteners": [{"key": "f", "name": "F", "phases": [{"to": "torque", "low": "9 N·m", "high": "8 N·m"}]}]}, "fasteners.0.phases.0.low", "above"),
        ({"fasteners": [{"key": "f", "name": "F", "phases": [{"to": "torque"}]}]}, "fasteners.0.phases.0", "low and high, or target"),
        ({"fasteners": [{"key": "f", "name": "F", "phases": [{"to": "gap", "gap": ["4 mm", "1 mm"]}]}]}, "fasteners.0.phases.0.gap", "above"),
        ({"fasteners": [{"key": "f", "name": "F", "thread": "M8", "phases": [{"to": "turns", "turns": [0.8, 0.6]}]}]}, "fasteners.0.phases.0.turns", "above"),
        ({"fasteners": [{"key": "f", "name": "F", "count": 2, "places": [{"numbers": [3], "screw": "M5"}], "phases": [{"to": "hand"}]}]}, "fasteners.0.places", "there are 2"),
        ({"fasteners": [{"key": "f", "name": "F", "count": 2, "places": [{"numbers": [1], "screw": "M5"}, {"numbers": [1], "screw": "M6"}], "phases": [{"to": "hand"}]}]}, "fasteners.0.places", "twice"),
        ({"tests": [{"key": "t", "name": "T", "pressure": "151 bar", "volume": "1 l", "medium": "water", "leak_limit": "1 ml/min", "zone": "oil"}]}, "tests.0.pressure", "1.5 times"),
        ({"tests": [{"key": "t", "name": "T", "pressure": "90 bar", "volume": "1 l", "medium": "milk", "leak_limit": "1 ml/min", "zone": "oil"}]}, "tests.0.medium", "milk"),
        ({"tests": [{"key": "t", "name": "T", "pressure": "90 bar"}]}, "tests.0.volume", "is needed"),
        ({"settings": [{"key": "s", "name": "S", "kind": "target"}]}, "settings.0.target", "is needed"),
        ({"colour": "red"}, "colour", ""),
        ({"version": 0}, "version", ""),
        ({"format": "iron-kettle/build-sheet/3"}, "format", ""),
    ],
)  # fmt: skip
def test_figures_that_cannot_be(changes: dict[str, Any], field: str, words: str) -> None:
    found = told(**changes)
    assert field in found, found
    assert words in found[field]


def test_the_weakest_rating_decides_how_hard_a_test_may_press() -> None:
    test = {
        "key": "t",
        "name": "T",
        "pressure": "150 bar",
        "volume": "1 l",
        "medium": "water",
        "leak_limit": "1 ml/min",
        "zone": "oil",
    }
    assert told(tests=[test]) == {}
    assert "60 bar" in told(tests=[test], parts__0__rated="60 bar")["tests.0.pressure"]
    (too_much,) = checked(tests=[test | {"pressure": "151 bar"}]).faults
    assert too_much.accepts == ("up to 150 bar",)
    # A part that stands more does not make the unit stronger.
    assert told(tests=[test], parts__0__rated="400 bar") == {}
    assert "tests.0.pressure" in told(tests=[test | {"pressure": "151 bar"}], parts__0__rated="400 bar")


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("a: &x 1\nb: *x", "anchors"),
        ("a: 1\na: 2", "used here twice"),
        ("- 1", "not a document"),
        ("x" * 400_001, "longer than"),
        ("a: [[[[[[[[[[[[[[[[[[[[[[[[[[1]]]]]]]]]]]]]]]]]]]]]]]]]]", "nested deeper"),
        ("\0", "YAML"),
    ],
)
def test_text_that_is_no_sheet(text: str, words: str) -> None:
    found = check_text(text, TABLES)
    assert found.sheet is None
    assert any(words in fault.message for fault in found.faults), found.faults


def test_reading_raises_every_fault() -> None:
    document = plug(stations__0__carrier="lid", steps__1__after=["moon"])
    with pytest.raises(RuleError) as caught:
        read_text(yaml.safe_dump(document), TABLES)
    assert {fault.field for fault in caught.value.faults} == {"stations.0.carrier", "steps.1.after.0"}


def test_yaml_s_numbers_are_taken_as_words_where_a_word_is_wanted() -> None:
    document = unit("swing-bridge-ram")
    document["positions"] = [{"key": "side", "name": "Side", "of": [1, 2], "parts": []}]
    assert check_document(document, TABLES).faults == []


def test_equal_ends_are_a_range() -> None:
    group = {
        "key": "f",
        "name": "F",
        "phases": [{"to": "torque", "low": "8 N·m", "high": "8 N·m"}, {"to": "gap", "gap": ["1 mm", "1 mm"]}],
    }
    assert told(fasteners=[group]) == {}


def test_a_thing_repeats_with_one_kind_of_position_only() -> None:
    positions = [{"key": key, "name": "P", "of": [1, 2], "parts": ["plug"]} for key in ("left", "right")]
    assert "plug repeats with left already" in told(positions=positions)["positions.1.parts.0"]
    assert told(positions=positions[:1]) == {}


def test_a_temperature_range_runs_upwards() -> None:
    assert "is not below" in told(service__temperature=["20 °C", "20 °C"])["service.temperature"]
    assert told(service__temperature=["20 °C", "21 °C"]) == {}


def test_what_is_cleaned_is_of_a_known_material_and_soil_and_soaks_under_a_timer() -> None:
    def cleaned(**wash: Any) -> dict[str, str]:
        step = {"key": "wash", "stage": "clean", "text": "Wash", **wash}
        return told(steps__2=step)

    assert cleaned(cleans=["plug"], soil="oil and dirt") == {}
    assert "needed for what is cleaned" in cleaned(cleans=["plug"])["steps.2.soil"]
    assert "has no “jam” on steel" in cleaned(cleans=["plug"], soil="jam")["steps.2.soil"]
    assert "soaks 60 min" in cleaned(cleans=["plug"], soil="carbon")["steps.2.timer"]
    timer = {"key": "soak", "minutes": 60, "for": "the carbon to soften", "may_cut": True}
    assert cleaned(cleans=["plug"], soil="carbon", timer=timer) == {}
    assert list(cleaned(cleans=["teapot"], soil="carbon")) == ["steps.2.cleans.0"]
    bare = told(
        parts__1__material=None,
        steps__2={"key": "wash", "stage": "clean", "text": "Wash", "cleans": ["plug"], "soil": "carbon"},
    )
    assert "has no material" in bare["steps.2.cleans.0"]
