"""Counter readings from a file: decimal commas, semicolons, dates; every bad line named."""

from __future__ import annotations

from datetime import UTC, datetime

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.shop.service import Lower, read_counters


def test_both_ways_of_writing_it_are_read() -> None:
    english = "unit,counter,value,date\nFN-1,h,1250.5,2026-11-20\n\nFN-2,swings,10,2026-11-20T14:30:00+02:00\n"
    german = (
        "\ufeffdate;value;unit;counter;lower\n2026-11-20;1250,5;FN-1;h;\n2026-11-20T12:30;10;FN-2;swings;new counter\n"
    )
    one, two = read_counters(english), read_counters(german)
    assert [(row.line, row.unit, row.counter, row.value, row.at) for row in one] == [
        (2, "FN-1", "h", 1250.5, datetime(2026, 11, 20, tzinfo=UTC)),
        (4, "FN-2", "swings", 10.0, datetime(2026, 11, 20, 12, 30, tzinfo=UTC)),
    ]
    assert [(row.unit, row.value, row.at, row.lower) for row in two] == [
        ("FN-1", 1250.5, one[0].at, None),
        ("FN-2", 10.0, one[1].at, Lower.NEW_COUNTER),
    ]


@pytest.mark.parametrize("end", ["\n", "\r\n", "\r"])
def test_lines_end_as_any_system_ends_them(end: str) -> None:
    text = end.join(("unit,counter,value,date", "FN-1,h,1,2026-11-20", "FN-2,h,2,2026-11-20"))
    assert [(row.unit, row.value) for row in read_counters(text)] == [("FN-1", 1.0), ("FN-2", 2.0)]


def test_what_parts_the_columns_is_told_by_the_first_line_alone() -> None:
    text = 'unit,counter,value,date\n"FN-1;left",h,12,2026-11-20\n'
    assert [(row.unit, row.value) for row in read_counters(text)] == [("FN-1;left", 12.0)]
    long = read_counters(f"unit,counter,value,date\n{'x' * 130},{'y' * 130},1,2026-11-20\n")[0]
    assert (len(long.unit), len(long.counter)) == (120, 120)


@pytest.mark.parametrize(
    ("row", "words"),
    [
        ("FN-1,h,,2026-11-20", "value is empty"), ("FN-1,h,much,2026-11-20", "“much” is not a counter reading"),
        ("FN-1,h,nan,2026-11-20", "is not a counter reading"), ("FN-1,h,-4,2026-11-20", "is not a counter reading"),
        ("FN-1,h,inf,2026-11-20", "is not a counter reading"), ("FN-1,h,1.250,2026-11-20", "may be 1250 or 1.250"), ("FN-1,h,4,20.11.2026", "is not a date"),
        ("FN-1\0,h,4,2026-11-20", "unit holds a NUL character"), ("FN-1,h\u202e,4,2026-11-20", "counter holds the control"),
        ("FN-1,h,4", "date is empty"), ("FN-1,h,4,2026-11-20,because", "“because” does not say why it is lower"),
        (",h,4,2026-11-20", "unit is empty"),
    ],
)  # fmt: skip
def test_a_bad_line_is_named(row: str, words: str) -> None:
    with pytest.raises(RuleError, match=words) as caught:
        read_counters(f"unit,counter,value,date,lower\nFN-1,h,1,2026-11-19,\n{row}\n")
    assert caught.value.faults[0].field == "line 3"


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "unit, counter, value, date is missing"),
        ("unit,counter,value\n", "date is missing"),
        ("unit,counter,value,date\n\n", "no row"),
        (f"unit,counter,value,date\n{'x' * 140_000},h,1,2026-11-20\n", "this is not a table"),
    ],
)
def test_a_file_that_is_none_is_refused(text: str, words: str) -> None:
    with pytest.raises(RuleError, match=words):
        read_counters(text)


def test_a_file_of_too_many_rows_is_refused() -> None:
    with pytest.raises(RuleError, match="too many at once"):
        read_counters("unit,counter,value,date\n" + "FN-1,h,1,2026-11-19\n" * 2001)
