"""Build sheets: list, read with everything computed from it, import, export, schema."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal

import yaml
from fastapi import APIRouter, Path, Query, Request, Response
from pydantic import BaseModel

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import allow, prove_signature
from ironkettle.api.base.problems import (
    CONFLICT,
    ERROR_RESPONSES,
    GUARDED,
    NOT_THERE,
    NotThereError,
)
from ironkettle.api.base.schemas import Body, NameText
from ironkettle.api.policies import Caller, SheetPolicy
from ironkettle.api.sealing.facing import OrientOut, orientation_out
from ironkettle.api.sheets.check import ImportBody, sheet_tables, task_tables
from ironkettle.api.shop.people import Secret
from ironkettle.core.base.errors import NotAllowedError, RefusedError, RuleError, fault
from ironkettle.core.jobs import Resolved, preview, work_faults
from ironkettle.core.jobs.kinds.base import Reason
from ironkettle.core.sheets.document import Sheet, answered, differences, document_of, first_answers
from ironkettle.core.sheets.document.approval import check_may_approve, is_draft_at_import, may_approve, words_of
from ironkettle.core.sheets.document.facts import orientation_of
from ironkettle.core.sheets.document.finder import found_by
from ironkettle.core.sheets.document.loosening import Change, Weight
from ironkettle.core.sheets.document.loosening import changes as sheet_changes
from ironkettle.core.sheets.document.quick_service import counters_of
from ironkettle.core.sheets.drawing import Picture, picture
from ironkettle.core.sheets.drawing.section import MAIN_VIEW
from ironkettle.core.sheets.soundness import read_text
from ironkettle.core.shop.people import ROLE_WORD, Authority, Role
from ironkettle.reference import ring_table
from ironkettle.store.sheets.rows import (
    SheetRow,
    add_sheet,
    approve_sheet,
    drafts,
    find_row,
    latest_sheets,
    load_sheet,
    sheet_in,
    sheets_of_unit,
    shops_row,
    standing_in,
    use_sheet,
    versions_of,
)
from ironkettle.store.shop.dues import note_new_sheet
from ironkettle.store.shop.people import all_people
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api/sheets", tags=["sheets"], responses=ERROR_RESPONSES)

Reader = Annotated[Caller, allow(SheetPolicy.read)]
Importer = Annotated[Caller, allow(SheetPolicy.bring_in)]
Approver = Annotated[Caller, allow(SheetPolicy.approve)]
Withdrawer = Annotated[Caller, allow(SheetPolicy.withdraw)]


class SheetSummary(BaseModel):
    key: str
    version: int
    name: str
    family: str


class SheetView(BaseModel):
    """The document as it is exported, its views and its questions; ``counters``: what its unit's counters count."""

    document: dict[str, Any]
    name: str
    orientation: OrientOut
    tasks: dict[str, int]
    counters: list[str]


def find_sheet(session: DbSession, key: str, version: int | None = None) -> Sheet:
    sheet = load_sheet(session, key, version)
    if sheet is None:
        raise NotThereError("build sheet", f"{key} {version or ''}".strip())
    return sheet


def job_picture(resolved: Resolved, view: str | None) -> Picture:
    """The drawing of a job's unit; kept, since every screen of the job asks for it. Raises RuleError for an unknown view."""
    known = [own_view.key for own_view in resolved.whole.views] or [MAIN_VIEW]
    if view is not None and view not in known:
        raise fault("view", f"“{view}” is not a view of this sheet", *known)
    return picture(resolved.drawn, ring_table(), view)


class SheetChangeOut(BaseModel):
    """One change against the shop's version; ``loosens``: less is asked for, or it cannot be shown that not."""

    path: str
    was: str | None
    now: str | None
    weight: Weight
    loosens: bool


class SheetDraftOut(SheetSummary):
    """A version that waits for approval. ``needs``: who may approve it; ``why_not``: why the one who asks may not."""

    drafted_by: str
    needs: str
    why_not: str | None
    changes: list[SheetChangeOut]


class SheetImportOut(SheetSummary):
    """A sheet that was brought in: the shop's at once, or a draft, with what it changes and who may approve it."""

    state: Literal["draft", "active"]
    changes: list[SheetChangeOut]
    needs: str | None


class SheetListed(SheetSummary):
    """``earlier``: the versions before this one that are kept, the newest first; ``active``: False once it is withdrawn;
    ``draft``: nobody has approved any version of it."""

    earlier: list[int]
    active: bool
    draft: bool


@router.get("", summary="The newest approved version of each sheet", responses=GUARDED)
def sheets(session: DbSession, caller: Reader, ended: bool = False) -> list[SheetListed]:
    """``ended``: also those that were withdrawn."""
    kept = versions_of(session)
    return [
        SheetListed(
            key=r.key,
            version=r.version,
            name=r.name,
            family=r.family,
            earlier=[version for version in kept[r.key] if version != r.version],
            active=r.active,
            draft=r.is_draft,
        )
        for r in latest_sheets(session)
        if r.active or ended
    ]


@router.get("/drafts", summary="Versions that wait for approval, with what they change", responses=GUARDED)
def waiting(session: DbSession, caller: Reader) -> list[SheetDraftOut]:
    return [_draft_out(session, row, caller) for row in drafts(session)]


@router.post("", summary="Import a sheet from YAML or JSON", responses=GUARDED | CONFLICT)
def import_sheet(body: ImportBody, session: DbSession, caller: Importer) -> SheetImportOut:
    """The shop's at once when a lead brings in a new key or a version that loosens nothing; else a draft to be approved."""
    sheet = read_text(body.text, sheet_tables())
    faults = work_faults(sheet, task_tables())
    if faults:
        raise RuleError(faults)
    shops = shops_row(session, sheet.key)
    found = () if shops is None else sheet_changes(sheet_in(shops), sheet)
    present = find_row(session, sheet.key, sheet.version)
    draft = is_draft_at_import(caller.author, sheet, shops is not None, found, sheets_of_unit(session, sheet))
    row = add_sheet(session, sheet, caller.key if draft else None)
    if present is None:
        change = "imported as a draft" if draft else "imported"
        leave_trail(session, caller.key, now(), "sheet", row.key, change, after={"version": row.version})
        if not draft:
            note_new_sheet(session, row.key)
    return SheetImportOut(
        **_summary(row),
        state="draft" if row.is_draft else "active",
        changes=_changes_out(found),
        needs=_needs(_guards(session, row)) if row.is_draft else None,
    )


class ApproveBody(Body):
    pin: Secret


@router.post("/{key}/{version}/approve", summary="Approve a draft, signed", responses=GUARDED | NOT_THERE | CONFLICT)
def approve(
    key: NameText,
    body: ApproveBody,
    request: Request,
    session: DbSession,
    caller: Approver,
    version: int = Path(ge=1, le=100_000),
) -> SheetImportOut:
    """By the lead; for a guarded unit by a holder of its authority; by a second person where the shop has one who may."""
    row = find_row(session, key, version)
    if row is None:
        raise NotThereError("build sheet", f"{key} {version}")
    if row.drafted_by is None or not row.is_draft:
        raise RefusedError("not-a-draft", f"{row.name}, version {version}, is already approved")
    guards, day = _guards(session, row), now().date()
    others = [person.author() for person in all_people(session) if person.active and person.key != row.drafted_by]
    second = any(may_approve(other, guards, day) for other in others)
    check_may_approve(caller.author, guards, day, row.drafted_by, second)
    prove_signature(request, caller, body.pin)
    shops = shops_row(session, key)
    found = () if shops is None else sheet_changes(sheet_in(shops), sheet_in(row))
    approve_sheet(session, row, caller.key, now())
    loose = [difference.path for difference in found if difference.loosens]
    after = {"version": version, "drafted by": row.drafted_by, "loosens": ", ".join(loose)[:2000]}
    leave_trail(session, caller.key, now(), "sheet", key, "approved", after=after)
    note_new_sheet(session, key)
    return SheetImportOut(**_summary(row), state="active", changes=_changes_out(found), needs=None)


def _summary(row: SheetRow) -> dict[str, Any]:
    return {"key": row.key, "version": row.version, "name": row.name, "family": row.family}


def _changes_out(found: Sequence[Change]) -> list[SheetChangeOut]:
    return [
        SheetChangeOut(
            path=difference.path,
            was=difference.was,
            now=difference.now,
            weight=difference.weight,
            loosens=difference.loosens,
        )
        for difference in found
    ]


def _guards(session: DbSession, row: SheetRow) -> tuple[Authority, ...]:
    return standing_in(session, row.key, row.version).guards


def _needs(guards: tuple[Authority, ...]) -> str:
    return f"a person authorised for {words_of(guards)}" if guards else f"the {ROLE_WORD[Role.LEAD]}"


def _draft_out(session: DbSession, row: SheetRow, caller: Caller) -> SheetDraftOut:
    guards, day, shops = _guards(session, row), now().date(), shops_row(session, row.key)
    people = {person.key: person for person in all_people(session)}
    others = [person.author() for person in people.values() if person.active and person.key != row.drafted_by]
    why_not = None
    try:
        drafted_by = row.drafted_by or ""
        check_may_approve(
            caller.author, guards, day, drafted_by, any(may_approve(other, guards, day) for other in others)
        )
    except NotAllowedError as error:
        why_not = str(error)
    return SheetDraftOut(
        **_summary(row),
        drafted_by=people[drafted_by].name if drafted_by in people else drafted_by,
        needs=_needs(guards),
        why_not=why_not,
        changes=_changes_out(() if shops is None else sheet_changes(sheet_in(shops), sheet_in(row))),
    )


class SheetUse(Body):
    """``active``: whether new jobs may be opened on it. Jobs that are open go on either way; ``reason``: for withdrawing it."""

    active: bool
    reason: Reason | None = None


@router.patch("/{key}", summary="Withdraw a sheet from new jobs, or put it back", responses=GUARDED | NOT_THERE)
def use(key: NameText, body: SheetUse, session: DbSession, caller: Withdrawer) -> SheetUse:
    if not body.active and body.reason is None:
        raise fault("reason", "a reason is needed to withdraw a sheet", "why no new job may be opened on it")
    before = use_sheet(session, key, body.active)
    if before is None:
        raise NotThereError("build sheet", key)
    change = "put back" if body.active else "withdrawn"
    after = {"active": body.active} | ({"reason": body.reason} if body.reason else {})
    leave_trail(session, caller.key, now(), "sheet", key, change, {"active": before}, after)
    return body


class FoundOut(BaseModel):
    """A sheet that was found, and by what."""

    key: str
    version: int
    name: str
    family: str
    by: str


@router.get("/find", summary="Sheets by marking, kit number, family, name or size", responses=GUARDED)
def find(session: DbSession, caller: Reader, q: Annotated[str, Query(min_length=1, max_length=200)]) -> list[FoundOut]:
    found = []
    for row in latest_sheets(session):
        by = found_by(sheet_in(row), q) if row.active else None
        if by is not None:
            found.append(FoundOut(key=row.key, version=row.version, name=row.name, family=row.family, by=by))
    return found


@router.get("/{key}/{version}", summary="A sheet with what follows from it", responses=GUARDED | NOT_THERE)
def sheet(session: DbSession, caller: Reader, key: NameText, version: int = Path(ge=1, le=100_000)) -> SheetView:
    found = find_sheet(session, key, version)
    return SheetView(
        document=document_of(found),
        name=found.name,
        orientation=orientation_out(orientation_of(answered(found, first_answers(found, {})))),
        tasks=preview(found, task_tables()),
        counters=list(counters_of(found)),
    )


class SheetDifferenceOut(BaseModel):
    path: str
    before: str | None
    after: str | None


@router.get("/{key}/{version}/changes", summary="What differs from another version", responses=GUARDED | NOT_THERE)
def changes(
    session: DbSession,
    caller: Reader,
    key: NameText,
    since: Annotated[int, Query(ge=1, le=100_000)],
    version: int = Path(ge=1, le=100_000),
) -> list[SheetDifferenceOut]:
    before, after = find_sheet(session, key, since), find_sheet(session, key, version)
    return [
        SheetDifferenceOut(path=difference.path, before=difference.before, after=difference.after)
        for difference in differences(before, after)
    ]


@router.get("/{key}/{version}/export", summary="A sheet as YAML", responses=GUARDED | NOT_THERE)
def export(session: DbSession, caller: Reader, key: NameText, version: int = Path(ge=1, le=100_000)) -> Response:
    text = yaml.safe_dump(
        document_of(find_sheet(session, key, version)), allow_unicode=True, sort_keys=False, width=110
    )
    name = f"{key}-{version}.yaml"
    return Response(
        text, media_type="application/yaml", headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )
