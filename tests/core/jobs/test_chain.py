"""The seal over a log: any change at all shows."""

from __future__ import annotations

import uuid
from dataclasses import replace
from datetime import UTC, datetime, timedelta

from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.jobs import FIRST_LINK, Entry, Sealed, check_chain, link_of
from ironkettle.core.jobs.entries import NoteMade

JOB = uuid.UUID(int=7)
START = datetime(2026, 11, 24, 9, tzinfo=UTC)


def sealed(texts: list[str]) -> tuple[list[Sealed], str]:
    """A log of notes with its seal, and the last link."""
    links, previous = [], FIRST_LINK
    for place, text in enumerate(texts):
        entry = Entry(
            id=uuid.UUID(int=place + 1),
            seq=place + 1,
            who="bede",
            bench_time=START + timedelta(minutes=place),
            server_time=START + timedelta(minutes=place, seconds=1),
            payload=NoteMade(stage="strip", text=text),
        )
        own = link_of(previous, JOB, entry)
        links.append(Sealed(entry, previous, own))
        previous = own
    return links, previous


TEXTS = st.lists(
    st.text(st.characters(exclude_characters="\x00", codec="utf-8"), min_size=1, max_size=20).filter(str.strip),
    min_size=1,
    max_size=6,
)


@given(TEXTS)
def test_an_untouched_log_holds(texts: list[str]) -> None:
    links, head = sealed(texts)
    assert check_chain(JOB, links, head) == []


@given(texts=TEXTS, data=st.data())
def test_every_single_change_shows(texts: list[str], data: st.DataObject) -> None:
    links, head = sealed(texts)
    place = data.draw(st.integers(0, len(links) - 1))
    entry = links[place].entry
    change = data.draw(
        st.sampled_from(
            [
                {"who": "ines"},
                {"bench_time": entry.bench_time + timedelta(microseconds=1)},
                {"server_time": entry.server_time - timedelta(days=1)},
                {"id": uuid.UUID(int=999)},
                {"payload": NoteMade(stage="kit", text="something else")},
            ]
        )
    )
    links[place] = replace(links[place], entry=entry.model_copy(update=change))
    broken = check_chain(JOB, links, head)
    assert [(link.seq, link.reason) for link in broken] == [(place + 1, "was changed after it was written")]


@given(texts=TEXTS, data=st.data())
def test_a_missing_entry_shows_wherever_it_was(texts: list[str], data: st.DataObject) -> None:
    links, head = sealed(texts)
    del links[data.draw(st.integers(0, len(links) - 1))]
    assert check_chain(JOB, links, head)


def test_a_log_of_one_job_is_not_that_of_another() -> None:
    links, head = sealed(["turned", "cleaned"])
    assert check_chain(uuid.UUID(int=8), links, head)
    # The same moment written in another zone is the same entry.
    entry = links[0].entry
    east = entry.model_copy(update={"bench_time": entry.bench_time.astimezone()})
    assert link_of(FIRST_LINK, JOB, east) == links[0].hash
