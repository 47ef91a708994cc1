"""The register map: numbers out of registers and back, in the channel's unit, and what a map may not be."""

from __future__ import annotations

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.stand import (
    SHIPPED,
    Block,
    Reads,
    RegisterFormat,
    StandChannel,
    StandMap,
    blocks_of,
    encode,
    kept_blocks,
    kept_of,
    shown_of,
    value_in,
)

BAR = {"key": "p", "name": "Pressure", "reads": "pressure", "register_at": 0, "unit": "bar"}


def channel(**changes: Any) -> StandChannel:
    return StandChannel.model_validate(BAR | changes)


@pytest.mark.parametrize(
    ("words", "changes", "shown"),
    [
        # IEEE 754 by hand: 180.0 = 0x43340000, 1.0 = 0x3F800000.
        ((0x4334, 0x0000), {}, 180.0),
        ((0x0000, 0x4334), {"swapped": True}, 180.0),
        ((0x3F80, 0x0000), {"scale": 2.5, "offset": -1.0}, 1.5),
        # Two's complement: 0xFF38 = -200.
        ((0xFF38,), {"format": "int16", "scale": 0.1}, -20.0),
        ((0xFF38,), {"format": "uint16"}, 65336.0),
        ((0x0001, 0x0000), {"format": "uint32"}, 65536.0),
        ((0xFFFF, 0xFFFE), {"format": "int32"}, -2.0),
        # 4 to 20 mA on 0 to 65535 for 0 to 400 bar: full scale reads 400.
        ((0xFFFF,), {"format": "uint16", "scale": 400 / 65535}, 400.0),
    ],
)
def test_a_number_stands_in_its_registers(words: tuple[int, ...], changes: dict[str, Any], shown: float) -> None:
    one = channel(**changes)
    assert value_in(words, one) == pytest.approx(shown)
    assert encode(one.base(shown), one) == words


@pytest.mark.parametrize("words", [(0x7FC0, 0x0000), (0x7F80, 0x0000), (0xFF80, 0x0000)])
def test_what_is_no_number_is_none(words: tuple[int, ...]) -> None:
    assert math.isnan(value_in(words, channel()))


def test_a_value_too_large_for_its_register_is_told() -> None:
    with pytest.raises(RuleError, match="does not fit the register of Pressure"):
        encode(400.0, channel(format="int16", scale=0.1))
    with pytest.raises(RuleError, match="does not fit the register"):
        encode(-1.0, channel(format="uint16"))


@given(
    st.floats(-60, 60),
    st.sampled_from(["bar", "psi", "MPa", "kPa"]),
    st.booleans(),
    st.floats(0.001, 1000),
    st.floats(-10, 10),
)
def test_there_and_back(base: float, unit: str, swapped: bool, scale: float, offset: float) -> None:
    one = channel(unit=unit, swapped=swapped, scale=scale, offset=offset)
    back = one.base(value_in(encode(base, one), one))
    # A 32-bit float holds seven digits; an offset of ten may cost some of them.
    assert back == pytest.approx(base, rel=1e-5, abs=2e-5)


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"scale": 0}, "scale 0 of Pressure"),
        ({"scale": 1e12}, "between 1e-9 and 1e9"),
        ({"unit": "mm"}, "not a unit for it"),
        ({"unit": "bara"}, "not a unit for it"),
        ({"unit": ""}, "not a unit for it"),
        ({"low": 5, "high": 5}, "the first is not below"),
        ({"register_at": 65_535}, "over the last register"),
        ({"register_at": -1}, "greater than or equal to 0"),
        ({"format": "float64"}, "float32"),
        ({"scale": math.nan}, "finite"),
        ({"key": "P 1"}, "match pattern"),
    ],
)
def test_a_channel_that_cannot_be(changes: dict[str, Any], says: str) -> None:
    with pytest.raises(ValidationError, match=says):
        channel(**changes)


@pytest.mark.parametrize(
    ("channels", "says"),
    [
        ([BAR, BAR | {"name": "Other", "register_at": 2}], "the key “p”"),
        ([BAR, BAR | {"key": "q", "register_at": 2}], "the name “Pressure”"),
        ([BAR, BAR | {"key": "q", "name": "Other", "register_at": 1}], "both take register 1"),
        ([BAR | {"reads": "force", "unit": "N"}], "no channel reads a pressure"),
        (
            [BAR, *({"key": f"h{n}", "name": f"H{n}", "reads": "hold", "register_at": 10 * n} for n in (1, 2))],
            "two channels read “hold”",
        ),
    ],
)
def test_a_map_that_cannot_be(channels: list[dict[str, Any]], says: str) -> None:
    with pytest.raises(ValidationError, match=says):
        StandMap.model_validate({"channels": channels})


def test_registers_are_read_in_few_goes() -> None:
    # Shown to 23, the written ones beyond are not read.
    assert blocks_of(SHIPPED) == (Block(0, 24),)
    spread = StandMap.model_validate(
        {
            "channels": [
                BAR,
                BAR | {"key": "q", "name": "Q", "register_at": 18},
                BAR | {"key": "r", "name": "R", "register_at": 37},
                BAR | {"key": "s", "name": "S", "register_at": 1000, "format": "int16"},
            ]
        }
    )
    # A hole of 16 is read along, one of 17 is not.
    assert blocks_of(spread) == (Block(0, 20), Block(37, 2), Block(1000, 1))


NUMBER = {"key": "n", "name": "Number", "reads": "reading", "register_at": 20, "format": "uint32"}


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"channels": [BAR]}, "no channel reads that number"),
        ({"numbered": None}, "enter every how many seconds"),
        ({"numbered": {"every_s": 0.001}}, "greater than or equal to 0.005"),
        ({"numbered": {"every_s": 0.02, "rows": 10, "first": 10}}, "Number lies among the kept readings, registers 10 to 229"),
        ({"numbered": {"every_s": 0.02, "rows": 100, "first": 65_000}}, "run over the last"),
        ({"channels": [BAR, NUMBER | {"register_at": 119}], "numbered": {"every_s": 0.02, "rows": 2, "first": 200}}, "121 registers"),
    ],
)  # fmt: skip
def test_numbers_of_readings_that_cannot_be(changes: dict[str, Any], says: str) -> None:
    whole = {"channels": [BAR, NUMBER], "numbered": {"every_s": 0.02, "rows": 10, "first": 100}}
    assert StandMap.model_validate(whole).span == Block(0, 22)
    with pytest.raises(ValidationError, match=says):
        StandMap.model_validate(whole | changes)


def test_kept_readings_are_found_by_their_number_in_few_goes() -> None:
    # Copies of 24 registers from 100 on, 500 of them: 497 lies at 100 + 497·24.
    assert kept_blocks(SHIPPED, range(3, 6)) == ((Block(172, 72), (3, 4, 5)),)
    assert kept_blocks(SHIPPED, range(3, 9))[0] == (Block(172, 120), (3, 4, 5, 6, 7))
    assert kept_blocks(SHIPPED, [499, 500]) == ((Block(12_076, 24), (499,)), (Block(100, 24), (500,)))
    # What has been written over is not asked for.
    assert kept_blocks(SHIPPED, [1, 500, 501]) == ((Block(100, 48), (500, 501)),)
    bare = StandMap.model_validate({"channels": [BAR]})
    assert kept_blocks(bare, [1]) == ()


def registers(**values: float) -> dict[int, int]:
    """The shipped map with what its channels show, in their own units; the rest 0."""
    words = dict.fromkeys(range(60), 0)
    for one in SHIPPED.channels:
        given_ = encode(one.base(values.get(one.key, 0.0)), one)
        words |= {one.register_at + place: word for place, word in enumerate(given_)}
    return words


def test_what_is_shown_comes_in_base_units() -> None:
    shown = shown_of(registers(pressure=180.0, temperature=24.0, force=500.0, held=3.0, hold=7, simulated=1), SHIPPED)
    assert shown.values["pressure"] == pytest.approx(18.0)
    assert shown.values["force"] == pytest.approx(500.0)
    assert (shown.held, shown.hold, shown.simulated, shown.shut) == (3.0, 7, True, True)
    assert not shown_of(registers(held=0.0), SHIPPED).shut
    assert not shown_of(registers(), SHIPPED).simulated


@pytest.mark.parametrize(("bar", "reads"), [(640.0, True), (640.1, False), (-1.0, True), (-1.1, False)])
def test_past_the_end_of_a_channel_is_no_reading(bar: float, reads: bool) -> None:
    assert math.isfinite(shown_of(registers(pressure=bar), SHIPPED).values["pressure"]) is reads


def test_a_kept_reading_shows_what_it_showed() -> None:
    words = registers(pressure=180.0, held=3.0, hold=7, reading=4_000_000_000)
    kept = kept_of({5000 + place: words[place] for place in range(24)}, 5000, SHIPPED)
    assert kept == shown_of(words, SHIPPED)
    assert kept.reading == 4_000_000_000


def test_a_hold_that_cannot_be_numbered_has_number_none() -> None:
    assert shown_of(registers(hold=-3), SHIPPED).hold == 0
    bare = StandMap.model_validate({"channels": [BAR]})
    shown = shown_of(registers(pressure=10.0), bare)
    assert (shown.hold, shown.held, shown.shut) == (None, None, True)


def test_the_judged_pressure_is_named_or_the_first() -> None:
    assert SHIPPED.pressure(None).key == "pressure"
    assert SHIPPED.pressure("supply").key == "supply"
    with pytest.raises(RuleError, match="is no pressure channel"):
        SHIPPED.pressure("force")
    assert RegisterFormat.INT16.words == 1
    assert SHIPPED.channel_of(Reads.TARGET) not in SHIPPED.measured
