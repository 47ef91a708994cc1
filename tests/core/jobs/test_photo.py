"""A photo is told of once it was sent, with the hash of what was kept, and the log says what is drawn on it."""

from __future__ import annotations

import uuid
from dataclasses import replace

import pytest

from ironkettle.core.base.errors import RuleError
from ironkettle.core.jobs import check_entry, read_payload
from ironkettle.core.jobs.registry import complete, payload_words
from tests.core.jobs.at_work import at, fields

SENT = str(uuid.UUID(int=7))
ARROW = {"start": [0, 0], "end": [1, 1]}
CIRCLE = {"at": [0.5, 0.5], "radius": 0.1}


def test_what_was_not_sent_cannot_be_told_of() -> None:
    case = at("swing-bridge-ram", "step:isolate").case()
    payload = read_payload({"kind": "photo_taken", "photo": SENT})
    with pytest.raises(RuleError, match="send it first") as caught:
        check_entry(case, payload)
    assert fields(caught) == ["photo"]
    sent = replace(case, photos={SENT: "a" * 64})
    check_entry(sent, payload)
    assert complete(sent, payload).sha256 == "a" * 64  # type: ignore[attr-defined]


@pytest.mark.parametrize(
    ("drawn", "words"),
    [
        ({}, "photo"),
        ({"arrows": [ARROW]}, "photo, 1 arrow"),
        ({"circles": [CIRCLE]}, "photo, 1 circle"),
        ({"arrows": [ARROW] * 2, "circles": [CIRCLE] * 3}, "photo, 2 arrows, 3 circles"),
        ({"time": "after", "circles": [CIRCLE], "words": "rod"}, "photo, after, 1 circle: rod"),
    ],
)
def test_the_log_says_what_is_drawn_on_it(drawn: dict[str, object], words: str) -> None:
    payload = read_payload({"kind": "photo_taken", "photo": SENT, **drawn})
    assert payload_words(at("swing-bridge-ram", "step:isolate").resolved, payload) == words
