"""Build sheets, every version kept, in the format it came in."""

from __future__ import annotations

import json
from collections.abc import Mapping
from datetime import datetime
from functools import lru_cache
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.buildsheets.sheet import FORMAT_2, Sheet, document_of
from ironkettle.core.buildsheets.upgrade import upgraded_document
from ironkettle.core.errors import RefusedError
from ironkettle.core.moves.resolved import Resolved, resolve
from ironkettle.store.base import Base


class SheetRow(Base):
    __tablename__ = "sheets"

    key: Mapped[str] = mapped_column(primary_key=True)
    version: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str]
    family: Mapped[str]
    document: Mapped[dict[str, Any]]
    added_at: Mapped[datetime] = mapped_column(server_default=func.now())
    # False once no new job is opened on it; jobs that are open go on.
    active: Mapped[bool] = mapped_column(default=True)


@lru_cache(maxsize=128)
def _read(text: str) -> Sheet:
    """A stored document as a sheet; one of the first format is read as what it says in the second.

    Raises RefusedError for one that reads as neither.
    """
    document = json.loads(text)
    try:
        return Sheet.model_validate(document) if document.get("format") == FORMAT_2 else upgraded_document(document)
    except ValueError as error:
        first = str(error).splitlines()[0]
        told = f"build sheet {document.get('key', '')} cannot be read by this version: {first}"
        raise RefusedError("sheet-unreadable", told) from None


def add_sheet(session: Session, sheet: Sheet) -> SheetRow:
    """Store a checked sheet. Raises RefusedError when this version exists with other contents."""
    document = document_of(sheet)
    present = session.get(SheetRow, (sheet.key, sheet.version))
    if present is not None:
        if present.document != document:
            text = f"version {sheet.version} of {sheet.key} exists with other contents; raise the version number"
            raise RefusedError("sheet-exists", text)
        return present
    row = SheetRow(key=sheet.key, version=sheet.version, name=sheet.name, family=sheet.family, document=document)
    session.add(row)
    session.flush()
    return row


def latest_sheets(session: Session) -> list[SheetRow]:
    """The newest version of each sheet, by name."""
    newest = select(SheetRow.key, func.max(SheetRow.version).label("version")).group_by(SheetRow.key).subquery()
    query = select(SheetRow).join(newest, (SheetRow.key == newest.c.key) & (SheetRow.version == newest.c.version))
    return list(session.scalars(query.order_by(SheetRow.name)))


def use_sheet(session: Session, key: str, active: bool) -> bool | None:
    """Whether new jobs may be opened on any version of a sheet, from now on; gives what it was. None when it is not there."""
    rows = list(session.scalars(select(SheetRow).where(SheetRow.key == key).order_by(SheetRow.version.desc())))
    if not rows:
        return None
    before = rows[0].active
    for row in rows:
        row.active = active
    session.flush()
    return before


def versions_of(session: Session) -> dict[str, list[int]]:
    """Every version that is kept of each sheet, the newest first."""
    found: dict[str, list[int]] = {}
    for key, version in session.execute(select(SheetRow.key, SheetRow.version).order_by(SheetRow.version.desc())):
        found.setdefault(key, []).append(version)
    return found


def load_sheet(session: Session, key: str, version: int | None = None) -> Sheet | None:
    """The sheet of that key, in that version or the newest; None when there is none."""
    query = select(SheetRow).where(SheetRow.key == key).order_by(SheetRow.version.desc()).limit(1)
    if version is not None:
        query = select(SheetRow).where(SheetRow.key == key, SheetRow.version == version)
    row = session.scalars(query).one_or_none()
    return None if row is None else sheet_in(row)


def sheet_in(row: SheetRow) -> Sheet:
    """The sheet of a row."""
    return _read(json.dumps(row.document, sort_keys=True))


@lru_cache(maxsize=256)
def _resolved(text: str, answers: frozenset[tuple[str, str]], care: str | None) -> Resolved:
    return resolve(_read(text), dict(answers), care)


def resolved_sheet(
    session: Session, key: str, version: int, answers: Mapping[str, str], care: str | None = None
) -> Resolved:
    """A sheet resolved for a job's answers and the care it is; kept, since every entry of a job asks for it again.

    Raises RefusedError for a sheet that is not there.
    """
    row = session.get(SheetRow, (key, version))
    if row is None:
        raise RefusedError("sheet-missing", f"build sheet {key} version {version} is not there")
    return _resolved(json.dumps(row.document, sort_keys=True), frozenset(answers.items()), care)
