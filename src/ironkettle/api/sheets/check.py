"""A sheet before it is stored: its schema, what it may choose from, whether it is sound, its drawing."""

from __future__ import annotations

from functools import cache
from typing import Any

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.base.problems import ERROR_RESPONSES, FieldErrorOut
from ironkettle.api.base.schemas import Body, Collector, NameText
from ironkettle.core.jobs import Tables, preview, work_faults
from ironkettle.core.sheets.document import answered, first_answers, sheet_schema
from ironkettle.core.sheets.drawing import Picture, picture
from ironkettle.core.sheets.drawing.section import MAIN_VIEW
from ironkettle.core.sheets.soundness import SheetTables, check_text, proof_of
from ironkettle.core.shop.settings.limits import FAMILIES
from ironkettle.reference import cleaning, compounds, fastener_tables, fluids, ring_table, shipped_tables

router = APIRouter(prefix="/api/sheets", tags=["sheets"], responses=ERROR_RESPONSES)


class ImportBody(Body):
    text: str = Field(min_length=1, max_length=400_000)


@router.get("/schema", summary="JSON Schema of a build sheet")
def schema() -> dict[str, Any]:
    return sheet_schema()


class SheetChoicesOut(BaseModel):
    """The closed lists of a build sheet."""

    families: tuple[str, ...]


@router.get("/choices", summary="The closed lists of a build sheet")
def sheet_choices() -> SheetChoicesOut:
    return SheetChoicesOut(families=FAMILIES)


class ZoneAreaOut(BaseModel):
    key: str
    area_mm2: float


class PartingOut(BaseModel):
    key: str
    parts_zones: bool


class StationProofOut(BaseModel):
    station: str
    tests: list[str]


class SheetCheckOut(BaseModel):
    """``proof``: by station that is opened, the as-left tests that load it. ``zones`` as found from the solids, with their areas in the section; ``stations`` that were tried; ``moves``: the tasks of a job on it, by stage."""

    faults: list[FieldErrorOut]
    zones: list[ZoneAreaOut]
    stations: list[PartingOut]
    moves: dict[str, int]
    proof: list[StationProofOut]


@cache
def sheet_tables() -> SheetTables:
    return SheetTables(ring_table(), fastener_tables(), fluids(), compounds(), cleaning())


@cache
def task_tables() -> Tables:
    return shipped_tables()


@router.post("/check", summary="Check a build sheet; nothing is stored")
def check(body: ImportBody) -> SheetCheckOut:
    found = check_text(body.text, sheet_tables())
    faults = list(found.faults)
    if found.sheet is not None and not faults:
        faults = work_faults(found.sheet, task_tables())
    sound = found.sheet if not faults else None
    return SheetCheckOut(
        faults=[
            FieldErrorOut(field=fault.field, message=fault.message, accepts=list(fault.accepts)) for fault in faults
        ],
        zones=[ZoneAreaOut(key=key, area_mm2=round(area, 2)) for key, area in found.proof.area.items()],
        stations=[PartingOut(key=key, parts_zones=parts) for key, parts in found.proof.parting.items()],
        moves={} if sound is None else preview(sound, task_tables()),
        proof=[]
        if found.sheet is None
        else [StationProofOut(station=key, tests=list(tests)) for key, tests in proof_of(found.sheet).items()],
    )


class PictureBody(ImportBody):
    """``answers``: to the sheet's questions; the first choice stands for one that is not given. ``view``: the first where none is named."""

    answers: dict[NameText, NameText] = Field(default_factory=dict, max_length=40)
    view: NameText | None = None


class NamedOut(BaseModel):
    key: str
    name: str


class AnswerOut(BaseModel):
    key: str
    says: str


class QuestionOut(BaseModel):
    key: str
    ask: str
    choices: list[AnswerOut]
    answer: str


class PictureOut(BaseModel):
    """The drawing of a sheet, from its own facts; none where the sheet is not sound."""

    name: str
    views: list[NamedOut]
    questions: list[QuestionOut]
    picture: Picture | None


@router.post("/picture", summary="The drawing of a build sheet; nothing is stored")
def draw_sheet(body: PictureBody) -> PictureOut:
    found = check_text(body.text, sheet_tables())
    if found.sheet is None or found.faults:
        return PictureOut(name="", views=[], questions=[], picture=None)
    whole = found.sheet
    questions = {question.key: [choice.key for choice in question.choices] for question in whole.questions}
    read = Collector()
    for key, choice in body.answers.items():
        read.require(
            choice in questions.get(key, []), f"answers.{key}", f"“{choice}” is not a choice", *questions.get(key, [])
        )
    views = [NamedOut(key=view.key, name=view.name) for view in whole.views]
    known = [view.key for view in views] or [MAIN_VIEW]
    read.require(body.view is None or body.view in known, "view", f"“{body.view}” is not a view of this sheet", *known)
    read.done()
    answers = first_answers(whole, body.answers)
    return PictureOut(
        name=whole.name,
        views=views,
        questions=[
            QuestionOut(
                key=question.key,
                ask=question.ask,
                choices=[AnswerOut(key=choice.key, says=choice.says) for choice in question.choices],
                answer=answers[question.key],
            )
            for question in whole.questions
        ],
        picture=picture(answered(whole, answers), ring_table(), body.view),
    )
