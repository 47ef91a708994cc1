"""Ring puzzles to practise on: guess, then see the reasoning; a score is kept per person."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel

from ironkettle.api.base.deps import DbSession, SettingsInForce, now
from ironkettle.api.base.identity import MaybeCaller, allow
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.base.schemas import Body, NameText, SizeName
from ironkettle.api.policies import Caller, PracticePolicy
from ironkettle.api.sealing.grooves import GlandCheckOut, GrooveBody, check_out
from ironkettle.api.sealing.rings import RingMatchBody, RingMatchOut, match_out
from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.core.sealing.grooves import check_gland
from ironkettle.core.shop.settings import ShopSettings
from ironkettle.demo.puzzles import Choice, Puzzle, puzzles
from ironkettle.reference import ring_table
from ironkettle.store.shop.people import all_people
from ironkettle.store.shop.ring_puzzles import GuessRow, add_guess, find_guess, guesses_of
from ironkettle.store.shop.tables import gland_tables

router = APIRouter(prefix="/api/practice", tags=["practice"], responses=ERROR_RESPONSES)


class PuzzleOut(BaseModel):
    """A puzzle without its answer; ``first_guess_right`` of the person asked for, none when not tried yet."""

    key: str
    title: str
    story: str
    reading: RingMatchBody | None
    groove: GrooveBody | None
    choices: list[Choice]
    first_guess_right: bool | None


class GuessBody(Body):
    id: UUID
    choice: NameText


class GuessOut(BaseModel):
    """Whether it was right, and how the application sees it."""

    right: bool
    answer: str
    because: str
    match: RingMatchOut | None
    ring: SizeName | None
    check: GlandCheckOut | None


class ScoreOut(BaseModel):
    """Puzzles tried, and right at the first guess."""

    who: str
    name: str
    tried: int
    right_first: int
    puzzles: int


@router.get("/puzzles", summary="The puzzles, without their answers")
def all_puzzles(session: DbSession, caller: MaybeCaller) -> list[PuzzleOut]:
    first = _first_guesses(guesses_of(session, caller.key)) if caller else {}
    return [
        PuzzleOut(
            key=puzzle.key,
            title=puzzle.title,
            story=puzzle.story,
            reading=RingMatchBody(**puzzle.reading) if puzzle.reading else None,
            groove=GrooveBody(**puzzle.groove) if puzzle.groove else None,
            choices=puzzle.choices,
            first_guess_right=next((right for (_, key), right in first.items() if key == puzzle.key), None),
        )
        for puzzle in puzzles()
    ]


@router.post("/puzzles/{key}/guesses", summary="Guess, and see the reasoning", responses=GUARDED | NOT_THERE | CONFLICT)
def guess(
    key: NameText,
    body: GuessBody,
    session: DbSession,
    settings: SettingsInForce,
    caller: Annotated[Caller, allow(PracticePolicy.guess)],
) -> GuessOut:
    puzzle = next((listed for listed in puzzles() if listed.key == key), None)
    if puzzle is None:
        raise NotThereError("puzzle", key)
    if body.choice not in {choice.key for choice in puzzle.choices}:
        raise fault("choice", f"“{body.choice}” is not a choice here", *(choice.key for choice in puzzle.choices))
    row = GuessRow(
        id=body.id,
        who=caller.key,
        puzzle=key,
        choice=body.choice,
        right=body.choice == puzzle.answer,
        guessed_at=now(),
    )
    present = find_guess(session, body.id)
    if present is None:
        add_guess(session, row)
    elif (present.who, present.puzzle, present.choice) != (row.who, row.puzzle, row.choice):
        raise RefusedError("guess-exists", "a guess with this id exists with other contents")
    return reasoning(puzzle, body.choice, settings)


def reasoning(puzzle: Puzzle, choice: str, settings: ShopSettings) -> GuessOut:
    """What the rules say of a puzzle: the match, and the ring it comes down to in its groove."""
    groove = GrooveBody(**puzzle.groove) if puzzle.groove else None
    match = check = ring = None
    if puzzle.reading:
        match = match_out(RingMatchBody(**puzzle.reading, groove=groove, limit=4), settings)
        ring = SizeName(series=match.candidates[0].series, designation=match.candidates[0].designation)
    if puzzle.ring is not None:
        ring = SizeName(**puzzle.ring.model_dump())
    if groove is not None and ring is not None:
        size = ring_table().find(ring.series, ring.designation)
        check = check_out(check_gland(groove.gland(), size, gland_tables(settings)))
    return GuessOut(
        right=choice == puzzle.answer, answer=puzzle.answer, because=puzzle.because, match=match, ring=ring, check=check
    )


@router.get("/scores", summary="Scores per person, best first", responses=GUARDED)
def scores(session: DbSession, caller: Annotated[Caller, allow(PracticePolicy.scores)]) -> list[ScoreOut]:
    first = _first_guesses(guesses_of(session))
    known = {puzzle.key for puzzle in puzzles()}
    found = []
    for person in all_people(session):
        rights = [right for (who, key), right in first.items() if who == person.key and key in known]
        found.append(
            ScoreOut(who=person.key, name=person.name, tried=len(rights), right_first=sum(rights), puzzles=len(known))
        )
    return sorted(found, key=lambda score: (-score.right_first, score.name))


def _first_guesses(guesses: list[GuessRow]) -> dict[tuple[str, str], bool]:
    """By person and puzzle whether the first guess was right."""
    first: dict[tuple[str, str], bool] = {}
    for guess in guesses:
        first.setdefault((guess.who, guess.puzzle), guess.right)
    return first
