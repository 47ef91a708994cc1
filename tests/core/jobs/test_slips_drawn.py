"""Whatever a tired hand sends at any task of any unit: it is refused by a rule, or kept as it was said. Nothing else happens."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from typing import Any

from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from ironkettle.core.base.errors import NotAllowedError, RefusedError, RuleError
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.sheets.document.parts import Read
from ironkettle.demo.walker import put
from tests.bench import Job, filled
from tests.laws import tried
from tests.tiny import UNITS, sheet_of, unit

EVERY = sorted(path.stem for path in UNITS.glob("*.yaml"))
WORDS = st.text(max_size=40) | st.sampled_from(
    [
        "nan",
        "-1",
        "-1 mm",
        "1e400",
        "12 kg",
        "0",
        "1/0",
        "３",
        "none",
        "yes",
        " ",
        "\x00",
        "1.000.000,5 bar",
        "∞ bar",
        "-0 mm",
        "5 mm mm",
    ]
)
# A yes is kept as true, and an everyday name of a list under its entry.
_OTHERWISE_KEPT = {Read.YES_NO, Read.GO_NO_GO, Read.CHOICE, Read.LOOK}
SLIPS = (
    WORDS
    | st.integers(-(10**20), 10**20)
    | st.floats(allow_nan=True, allow_infinity=True)
    | st.booleans()
    | st.none()
    | st.lists(WORDS, max_size=3)
    | st.dictionaries(st.text(max_size=5), WORDS, max_size=2)
)


@cache
def walked(key: str) -> Job:
    job = Job(sheet_of(unit(key)))
    job.walk()
    return job


def at_entry(key: str, place: int) -> Job:
    """A job of a unit as it stood after so many entries of a careful walk."""
    whole = walked(key)
    job = Job(whole.sheet, intake=False)
    job.entries = whole.entries[: 1 + place % (len(whole.entries) - 1)]
    job.samples, job.now = whole.samples, job.entries[-1][1].when
    return job


@tried(150)
@given(st.sampled_from(EVERY), st.integers(0, 400), st.integers(0, 40), SLIPS)
def test_a_slip_is_refused_or_kept_as_it_was_said(key: str, place: int, which: int, slip: Any) -> None:
    job = at_entry(key, place)
    task = job.next()
    if task is None or not task.asks:
        return
    ask = task.asks[which % len(task.asks)]
    document = filled(task)
    put(document, ask.field, slip)
    before = list(job.entries)
    try:
        job.do(document)
    except (RuleError, RefusedError, NotAllowedError, ValidationError):
        assert job.entries == before
        return
    kept = job.entries[-1][0]
    assert payload_words(job.resolved, kept)
    if isinstance(slip, str) and slip.strip() and ask.read not in _OTHERWISE_KEPT:
        assert slip.strip() in set(texts(kept.model_dump(mode="json")))


def texts(value: Any) -> Iterator[str]:
    """Every text in a payload."""
    if isinstance(value, str):
        yield value.strip()
    elif isinstance(value, dict | list):
        for one in value.values() if isinstance(value, dict) else value:
            yield from texts(one)
