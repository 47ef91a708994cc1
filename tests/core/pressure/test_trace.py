"""Reading a trace from CSV: good files, and every fault by line."""

from __future__ import annotations

import pytest

from ironkettle.core.errors import RuleError
from ironkettle.core.pressure import read_trace


@pytest.mark.parametrize(
    "text",
    [
        "t_s,pressure_bar,temperature_c\n0,210.0,24.1\n10,209.9,24.1\n",
        "t_s;pressure_bar;temperature_c\r\n0;210,0;24,1\r\n10;209,9;24,1\r\n",
        "\ufeffT_S\tPressure_Bar\tTemperature_C\n0\t210\t24.1\n\n10\t209.9\t24.1\n",
    ],
)
def test_commas_semicolons_tabs_and_decimal_commas(text: str) -> None:
    samples = read_trace(text)
    assert [s.t for s in samples] == [0, 10]
    assert [s.pressure for s in samples] == pytest.approx([21.0, 20.99])
    assert samples[0].temperature == 24.1


def test_units_and_a_missing_temperature() -> None:
    samples = read_trace("t_s,pressure_psi\n0,3000\n1,2999\n")
    assert samples[0].pressure == pytest.approx(20.684, abs=1e-3)
    assert samples[0].temperature is None


@pytest.mark.parametrize(
    ("text", "field", "words"),
    [
        ("", "csv", "empty"),
        ("time,bar\n0,1\n", "csv.line 1", "lacks t_s"),
        ("t_s,pressure_mm\n0,1\n", "csv.line 1", "names no gauge pressure unit"),
        ("t_s,pressure_bara\n0,1\n", "csv.line 1", "names no gauge pressure unit"),
        ("t_s,pressure_bar\n0,210\n1,\n", "csv.line 3.pressure", "is empty"),
        ("t_s,pressure_bar\n0,210\n1,abc\n", "csv.line 3.pressure", "not a number"),
        ("t_s,pressure_bar\n0,210\n5,209\n4,208\n", "csv.line 4.t_s", "does not come after 5 s"),
        ("t_s,pressure_bar\n0,210,0\n", "csv.line 2", "separate the columns by semicolons"),
        ("t_s,pressure_bar\n0\n", "csv.line 2", "has 1 cells"),
    ],
)
def test_faults_name_the_line(text: str, field: str, words: str) -> None:
    with pytest.raises(RuleError) as caught:
        read_trace(text)
    assert caught.value.faults[0].field == field
    assert words in caught.value.faults[0].message
