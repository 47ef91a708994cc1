"""The seal over a log: any change at all shows, and a later version reads what an earlier one sealed."""

from __future__ import annotations

import hashlib
import json
import uuid
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import DamagedEntryError
from ironkettle.core.jobs.chain import FIRST_LINK, SEAL_FORMAT, Sealed, check_chain, link_of, read_sealed, seal_text
from ironkettle.core.jobs.entry import Entry
from ironkettle.core.jobs.kinds.full_job import ServiceWidened
from ironkettle.core.jobs.kinds.intake import IntakeRecorded
from ironkettle.core.jobs.kinds.note import NoteMade
from ironkettle.core.jobs.runs import SampleRead
from ironkettle.core.shop.people import Authority, Role, Signature

JOB = uuid.UUID(int=7)
START = datetime(2026, 11, 24, 9, tzinfo=UTC)
BESIDE = ("id", "seq", "who", "bench_time", "server_time")


def entry(place: int, text: str) -> Entry:
    return Entry(
        id=uuid.UUID(int=place + 1),
        seq=place + 1,
        who="bede",
        bench_time=START + timedelta(minutes=place),
        server_time=START + timedelta(minutes=place, seconds=1),
        payload=NoteMade(text=text),
    )


def link(previous: str, one: Entry, job: uuid.UUID = JOB) -> Sealed:
    text = seal_text(previous, job, one)
    beside = {name: getattr(one, name) for name in BESIDE} | {"kind": one.kind}
    return Sealed(text, SEAL_FORMAT, link_of(text), one.seq, beside)


def sealed(texts: list[str]) -> tuple[list[Sealed], str]:
    """A log of notes with its seal, and the last link."""
    links: list[Sealed] = []
    previous = FIRST_LINK
    for place, text in enumerate(texts):
        links.append(link(previous, entry(place, text)))
        previous = links[-1].hash
    return links, previous


TEXTS = st.lists(
    st.text(st.characters(exclude_categories=("C",), codec="utf-8"), min_size=1, max_size=20).filter(str.strip),
    min_size=1,
    max_size=6,
)


@given(TEXTS)
def test_an_untouched_log_holds_and_reads_back(texts: list[str]) -> None:
    links, head = sealed(texts)
    assert check_chain(JOB, links, head) == []
    for place, (one, text) in enumerate(zip(links, texts, strict=True)):
        opened = read_sealed(one.text, one.format)
        assert opened.entry == entry(place, text)
        assert opened.previous == (links[place - 1].hash if place else FIRST_LINK)
        assert opened.job == str(JOB)


@given(texts=TEXTS, data=st.data())
def test_every_single_change_to_the_text_shows(texts: list[str], data: st.DataObject) -> None:
    links, head = sealed(texts)
    place = data.draw(st.integers(0, len(links) - 1))
    old = links[place].text
    spot = data.draw(st.integers(0, len(old) - 1))
    new = data.draw(st.characters(exclude_categories=("C",)).filter(lambda c: c != old[spot]))
    links[place] = replace(links[place], text=old[:spot] + new + old[spot + 1 :])
    broken = check_chain(JOB, links, head)
    assert [(one.seq, one.reason) for one in broken] == [(place + 1, "was changed after it was written")]


@given(texts=TEXTS, data=st.data())
def test_a_change_that_brings_its_own_hash_shows_all_the_same(texts: list[str], data: st.DataObject) -> None:
    links, head = sealed(texts)
    place = data.draw(st.integers(0, len(links) - 1))
    previous = links[place - 1].hash if place else FIRST_LINK
    links[place] = link(previous, entry(place, "something else was done"))
    assert check_chain(JOB, links, head)


@pytest.mark.parametrize(
    ("column", "value"),
    [
        ("who", "ines"),
        ("kind", "step_done"),
        ("bench_time", START - timedelta(microseconds=1)),
        ("server_time", START),
        ("id", uuid.UUID(int=99)),
    ],
)
def test_a_column_that_says_otherwise_shows(column: str, value: object) -> None:
    links, head = sealed(["turned", "cleaned"])
    links[1] = replace(links[1], row={**links[1].row, column: value})
    (broken,) = check_chain(JOB, links, head)
    assert broken.seq == 2
    assert column in broken.reason


@given(texts=TEXTS, data=st.data())
def test_a_missing_entry_shows_wherever_it_was(texts: list[str], data: st.DataObject) -> None:
    links, head = sealed(texts)
    gone = data.draw(st.integers(0, len(links) - 1))
    del links[gone]
    assert check_chain(JOB, links, head)[0].seq == gone + 1


def test_a_log_of_one_job_is_not_that_of_another() -> None:
    links, head = sealed(["turned", "cleaned"])
    assert [one.seq for one in check_chain(uuid.UUID(int=8), links, head)] == [1, 2]


def test_the_same_moment_in_another_zone_is_sealed_alike() -> None:
    one = entry(0, "turned")
    east = one.model_copy(update={"bench_time": one.bench_time.astimezone()})
    assert seal_text(FIRST_LINK, JOB, east) == seal_text(FIRST_LINK, JOB, one)


def test_a_signature_is_sealed_with_its_authority_and_counts_by_the_servers_clock() -> None:
    signature = Signature(role=Role.LEAD, authority=Authority.LIFTING, until="2027-06-30")
    one = entry(0, "released").model_copy(update={"signature": signature, "clock_ahead_s": 420.0})
    text = seal_text(FIRST_LINK, JOB, one)
    read = read_sealed(text, SEAL_FORMAT).entry
    assert read.signature == signature
    assert read.clock_ahead_s == 420.0
    assert read.when == one.server_time
    assert entry(0, "turned").when == START
    assert link_of(text) != link_of(text.replace("lifting", "workshop"))


def test_an_entry_of_the_first_format_still_reads_and_holds() -> None:
    """Sealed as version 0.1 did: no format, no signature, no clock; the digest taken here by hand."""
    document = {
        "previous": FIRST_LINK,
        "job": str(JOB),
        "id": str(uuid.UUID(int=1)),
        "seq": 1,
        "who": "bede",
        "bench_time": "2026-11-24T09:00:00+00:00",
        "server_time": "2026-11-24T09:00:01.250000+00:00",
        "payload": {"kind": "note_made", "stage": "strip", "text": "wet at the wiper"},
    }
    text = json.dumps(document, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    digest = hashlib.sha256(text.encode()).hexdigest()
    opened = read_sealed(text, 1)
    read = opened.entry
    assert (read.signature, read.clock_ahead_s, opened.previous) == (None, None, FIRST_LINK)
    # It carries over what it said; where in the work a note was made is no field any more.
    assert read.payload == NoteMade(text="wet at the wiper")
    assert opened.document["payload"] == document["payload"]
    beside = {name: getattr(read, name) for name in BESIDE}
    assert check_chain(JOB, [Sealed(text, 1, digest, 1, beside)], digest) == []


def test_a_quick_service_of_the_third_format_is_read_under_its_name() -> None:
    """Sealed as version 0.1 did before it was called so; what was written stays."""
    plain = json.loads(link(FIRST_LINK, entry(0, "x")).text) | {"format": 3}
    widened = json.dumps(plain | {"payload": {"kind": "care_widened", "reason": "Needles worn out"}})
    opened = read_sealed(widened, 3)
    assert opened.entry.payload == ServiceWidened(reason="Needles worn out")
    assert opened.payload["kind"] == "care_widened"
    intake = {"kind": "intake_recorded", "unit": "Scaler", "serial": "FN-1", "customer": "FN", "complaint": "due",
              "fluid": "air", "pressure": "6 bar"}  # fmt: skip
    read = read_sealed(json.dumps(plain | {"payload": {**intake, "care": "six-hourly"}}), 3).entry.payload
    assert isinstance(read, IntakeRecorded)
    assert read.quick_service == "six-hourly"


@pytest.mark.parametrize(
    ("text", "form", "words"),
    [
        ("{", SEAL_FORMAT, "cannot be read"),
        ("[]", SEAL_FORMAT, "cannot be read"),
        ("{}", SEAL_FORMAT, "cannot be read"),
        ('{"format":4,"previous":"","job":"","payload":{"kind":"made_up"}}', SEAL_FORMAT, "cannot be read"),
        ('{"previous":"","job":"","payload":{}}', SEAL_FORMAT, "is stored as format 4, and was sealed in format 1"),
        ('{"format":4,"previous":"","job":"","payload":{}}', 3, "is stored as format 3, and was sealed in format 4"),
        ("{}", 99, "format 99"),
    ],
)
def test_what_cannot_be_read_is_said_and_does_not_stop_the_rest(text: str, form: int, words: str) -> None:
    with pytest.raises(DamagedEntryError, match=words):
        read_sealed(text, form)
    links, _ = sealed(["turned", "cleaned"])
    bad = Sealed(text, form, link_of(text), 1, {})
    reasons = {one.seq: one.reason for one in check_chain(JOB, [bad, links[1]], links[1].hash)}
    assert words in reasons[1]
    assert reasons[2] == "does not follow the entry before it"


def test_a_zero_has_one_way_to_be_written() -> None:
    read = SampleRead(t_s=-0.0, pressure_mpa=-0.0, temperature_c=-0.0)
    assert "-0" not in read.model_dump_json()
