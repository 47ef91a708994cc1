"""Guesses as kept: in the order they were made."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime, timedelta

import pytest
from sqlalchemy import Engine
from sqlalchemy.exc import IntegrityError

from ironkettle.store.base import session_of
from ironkettle.store.shop.ring_puzzles import GuessRow, add_guess, find_guess, guesses_of

NOW = datetime(2026, 11, 24, 9, tzinfo=UTC)


def guess(who: str, minutes: int) -> GuessRow:
    return GuessRow(
        id=uuid.uuid4(),
        who=who,
        puzzle="gate-foot",
        choice="a",
        right=True,
        guessed_at=NOW + timedelta(minutes=minutes),
    )


def test_in_order_and_by_person(workshop: Engine) -> None:
    with session_of(workshop) as session:
        late, early, other = guess("bede", 5), guess("bede", 1), guess("ines", 3)
        for one in (late, early, other):
            add_guess(session, one)
        assert [row.id for row in guesses_of(session)] == [early.id, other.id, late.id]
        assert [row.id for row in guesses_of(session, "bede")] == [early.id, late.id]
        assert find_guess(session, late.id) is late
        assert find_guess(session, uuid.uuid4()) is None


def test_a_guess_needs_somebody_of_the_workshop(workshop: Engine) -> None:
    with pytest.raises(IntegrityError), session_of(workshop) as session:
        add_guess(session, guess("nobody", 0))
