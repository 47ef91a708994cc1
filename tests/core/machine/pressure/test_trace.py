"""Reading a trace from CSV: good files, and every fault by line."""

from __future__ import annotations

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.machine.pressure import Sample, TraceState, means_of, read_trace, read_trace_part, trace_csv


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
        ("time,bar\n0,1\n", "csv.line 1", "lacks one t_s or time"),
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


@pytest.mark.parametrize(
    ("text", "times"),
    [
        ("time,pressure_bar\n14:03:05,180\n14:03:06.5,180\n14:04,179\n", [0, 1.5, 55]),
        # Past midnight a clock begins anew.
        ("time;pressure_bar\n23:59:58;180\n23:59:59,5;180\n00:00:01;179\n", [0, 1.5, 3]),
        ("time,pressure_bar\n2026-11-26T14:03:05,180\n2026-11-26T14:03:05.250,180\n2026-11-27T14:03:05,179\n", [0, 0.25, 86400]),
        ("time,pressure_bar\n2026-11-26T14:03:05+01:00,180\n2026-11-26T13:03:06Z,180\n2026-11-26T13:03:07Z,1\n", [0, 1, 2]),
    ],
)  # fmt: skip
def test_clocks_and_dates_are_counted_from_the_first_row(text: str, times: list[float]) -> None:
    assert [one.t for one in read_trace(text)] == times


@pytest.mark.parametrize("cell", ["noon", "25:00:00", "14:61", "2026-13-01T00:00:00", "", "14:03:05 pm"])
def test_what_is_no_time_is_told_by_its_line(cell: str) -> None:
    with pytest.raises(RuleError) as caught:
        read_trace(f"time,pressure_bar\n14:03:05,180\n{cell},180\n14:03:09,179\n")
    assert caught.value.faults[0].field == "csv.line 3.time"
    with pytest.raises(RuleError, match="does not come after"):
        read_trace("time,pressure_bar\n14:03:05,180\n14:03:04,180\n")


def test_what_goes_out_comes_in_again() -> None:
    samples = (Sample(0.0, 18.0, 24.0), Sample(1.5, 17.99, 24.1), Sample(3.0, -0.05, 24.0))
    back = read_trace(trace_csv(samples))
    assert [(one.t, one.temperature) for one in back] == [(sample.t, sample.temperature) for sample in samples]
    assert [one.pressure for one in back] == pytest.approx([sample.pressure for sample in samples])
    # One reading without a temperature leaves the column out: a hole could not be read.
    assert trace_csv((*samples, Sample(4.0, 1.0))).splitlines()[0] == "t_s,pressure_bar"


def in_parts(text: str, every: int) -> tuple[Sample, ...]:
    """The file read in parts of so many lines."""
    lines, found, state = text.splitlines(keepends=True), [], None
    for at in range(0, len(lines), every):
        part, state = read_trace_part("".join(lines[at : at + every]), state)
        found += part
    return tuple(found)


@pytest.mark.parametrize("every", [2, 7, 50])
def test_a_file_in_parts_reads_as_in_one(every: int) -> None:
    seconds = "t_s;pressure_psi;temperature_c\n" + "".join(f"{n},5;2610,{n % 10};24\n" for n in range(60))
    assert in_parts(seconds, every) == read_trace(seconds)
    # A clock over midnight keeps its first moment and its days from part to part.
    clock = "time,pressure_bar\n" + "".join(
        f"{(23 * 3600 + 3570 + n) // 3600 % 24:02d}:{(23 * 3600 + 3570 + n) // 60 % 60:02d}:{(3570 + n) % 60:02d},180\n"
        for n in range(60)
    )
    assert [in_part.t for in_part in in_parts(clock, every)] == [float(n) for n in range(60)]


def test_a_fault_in_a_later_part_names_its_line_in_the_file() -> None:
    _, state = read_trace_part("t_s,pressure_bar\n0,180\n1,180\n", None)
    with pytest.raises(RuleError, match=r"line 5\.pressure: “x”"):
        read_trace_part("2,180\n3,x\n", state)
    with pytest.raises(RuleError, match=r"line 4\.t_s: time 1 s does not come after 1 s"):
        read_trace_part("1,180\n", state)


def test_means_keep_level_slope_and_what_is_left() -> None:
    samples = tuple(Sample(float(n), 18.0 - 0.001 * n, None if n % 2 else 24.0 + n) for n in range(10))
    assert means_of(samples, 1) == samples
    four = means_of(samples, 4)
    # By hand: 0..3, 4..7, 8..9.
    assert [one.t for one in four] == [1.5, 5.5, 8.5]
    assert [one.pressure for one in four] == pytest.approx([17.9985, 17.9945, 17.9915])
    assert [one.temperature for one in four] == [25.0, 29.0, 32.0]
    assert means_of((samples[1],), 4)[0].temperature is None
    for wrong in (0, 10_001):
        with pytest.raises(RuleError, match="cannot be taken together"):
            means_of(samples, wrong)


@pytest.mark.parametrize("header", ["", " ", ",,", "t_s,pressure_bar\n0,180", "\n", "\x85", '"', "t_s"])
def test_a_state_that_is_none_is_told(header: str) -> None:
    for text in ("", "0,180\n"):
        with pytest.raises(RuleError):
            read_trace_part(text, TraceState(header, 1))


def test_what_is_no_csv_is_told() -> None:
    with pytest.raises(RuleError, match="cannot be read as CSV"):
        read_trace('t_s,pressure_bar\n0,"' + "9" * 200_000)
