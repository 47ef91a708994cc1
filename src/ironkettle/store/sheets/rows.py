"""Build sheets, every version kept, in the format it came in."""

from __future__ import annotations

import json
from collections.abc import Mapping
from datetime import datetime
from functools import cached_property, lru_cache
from typing import Any

from sqlalchemy import ForeignKey, func, or_, select, text
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.base.errors import RefusedError
from ironkettle.core.jobs import Resolved, link_of, resolve
from ironkettle.core.sheets.document.approval import Standing, same_unit, standing_of
from ironkettle.core.sheets.document.sheet import Sheet, document_of
from ironkettle.core.sheets.document.upgrade import upgraded_document
from ironkettle.store.base import Base


class SheetRow(Base):
    """A version of a sheet. The document never changes, nor do rows go (a trigger refuses it).

    ``drafted_by``: who brought it in without its being the shop's at once; ``approved_by``, ``approved_at``: who made it so.
    """

    __tablename__ = "sheets"

    key: Mapped[str] = mapped_column(primary_key=True)
    version: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str]
    family: Mapped[str]
    document: Mapped[dict[str, Any]]
    added_at: Mapped[datetime] = mapped_column(server_default=func.now())
    # False once no new job is opened on it; jobs that are open go on.
    active: Mapped[bool] = mapped_column(default=True)
    drafted_by: Mapped[str | None] = mapped_column(ForeignKey("people.key"), default=None)
    approved_by: Mapped[str | None] = mapped_column(ForeignKey("people.key"), default=None)
    approved_at: Mapped[datetime | None] = mapped_column(default=None)

    @property
    def is_draft(self) -> bool:
        """Whether nobody who may has approved it."""
        return self.drafted_by is not None and self.approved_at is None

    @cached_property
    def text(self) -> str:
        """The document as its hash is taken of it: JSON with its keys sorted."""
        return _sorted_text(self.document)


# In a query: versions that are the shop's.
_IS_THE_SHOPS = or_(SheetRow.drafted_by.is_(None), SheetRow.approved_at.is_not(None))


@lru_cache(maxsize=128)
def _read(text: str) -> Sheet:
    """A stored document as a sheet; one of the first format is read as what it says in the second.

    Raises RefusedError for one that reads as neither.
    """
    document = json.loads(text)
    try:
        return upgraded_document(document)
    except ValueError as error:
        first = str(error).splitlines()[0]
        message = f"build sheet {document.get('key', '')} cannot be read by this version: {first}"
        raise RefusedError("sheet-unreadable", message) from None


def add_sheet(session: Session, sheet: Sheet, drafted_by: str | None = None) -> SheetRow:
    """Store a checked sheet, as a draft of somebody's or as the shop's; the row that is there when it has the same contents.

    Raises RefusedError when this version exists with other contents.
    """
    document = document_of(sheet)
    present = session.get(SheetRow, (sheet.key, sheet.version))
    if present is not None:
        if present.document != document:
            text = f"version {sheet.version} of {sheet.key} exists with other contents; raise the version number"
            raise RefusedError("sheet-exists", text)
        return present
    row = SheetRow(
        key=sheet.key,
        version=sheet.version,
        name=sheet.name,
        family=sheet.family,
        document=document,
        drafted_by=drafted_by,
    )
    session.add(row)
    session.flush()
    return row


def approve_sheet(session: Session, row: SheetRow, who: str, now: datetime) -> None:
    """Make a draft the shop's."""
    row.approved_by, row.approved_at = who, now
    session.flush()


def find_row(session: Session, key: str, version: int) -> SheetRow | None:
    """The row of a version, held against a change by another."""
    return session.get(SheetRow, (key, version), with_for_update=True, populate_existing=True)


def shops_row(session: Session, key: str) -> SheetRow | None:
    """The newest version of a sheet that is the shop's; None while there are only drafts."""
    query = select(SheetRow).where(SheetRow.key == key, _IS_THE_SHOPS).order_by(SheetRow.version.desc()).limit(1)
    return session.scalars(query).one_or_none()


def latest_sheets(session: Session) -> list[SheetRow]:
    """The newest approved version of each sheet, by name; a draft only where there is no other."""
    query = select(SheetRow).order_by(SheetRow.key, _IS_THE_SHOPS.desc(), SheetRow.version.desc())
    return sorted(session.scalars(query.ext(distinct_on(SheetRow.key))), key=lambda row: row.name)


def drafts(session: Session) -> list[SheetRow]:
    """Versions that wait for approval, by key."""
    query = select(SheetRow).where(SheetRow.drafted_by.is_not(None), SheetRow.approved_at.is_(None), SheetRow.active)
    return list(session.scalars(query.order_by(SheetRow.key, SheetRow.version)))


def sheets_of_unit(session: Session, sheet: Sheet, serial: str = "") -> list[Sheet]:
    """Every version of a sheet, and of others for the same unit: by what they name, or by the jobs of its serial."""
    rows = session.scalars(select(SheetRow).where(SheetRow.key != sheet.key))
    other = [read for row in rows if (read := _readable(row)) is not None and same_unit(sheet, read)]
    keys = {sheet.key, *(read.key for read in other)} | _keys_of_serial(session, serial)
    own = session.scalars(select(SheetRow).where(SheetRow.key.in_(keys)))
    return [read for row in own if (read := _readable(row)) is not None]


def _keys_of_serial(session: Session, serial: str) -> set[str]:
    """The sheets on which a serial was worked before: here a dash more or less is no other unit."""
    letters = "".join(character for character in serial.casefold() if character.isalnum())
    if not letters:
        return set()
    query = text(
        "SELECT DISTINCT sheet_key FROM units WHERE regexp_replace(serial_key, '[^[:alnum:]]', '', 'g') = :letters"
    )
    return set(session.scalars(query, {"letters": letters}))


def _readable(row: SheetRow) -> Sheet | None:
    try:
        return sheet_in(row)
    except RefusedError:
        return None


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
    """The sheet of that key, in that version or the shop's newest, a draft where it has no other; None when there is none."""
    query = select(SheetRow).where(SheetRow.key == key).order_by(_IS_THE_SHOPS.desc(), SheetRow.version.desc()).limit(1)
    if version is not None:
        query = select(SheetRow).where(SheetRow.key == key, SheetRow.version == version)
    row = session.scalars(query).one_or_none()
    return None if row is None else sheet_in(row)


def sheet_in(row: SheetRow) -> Sheet:
    """The sheet of a row."""
    return _read(row.text)


def standing_in(session: Session, key: str, version: int, serial: str = "") -> Standing:
    """How a version stands for a release of a unit. Raises RefusedError for a sheet that is not there."""
    row = _row(session, key, version)
    sheet = sheet_in(row)
    return standing_of(sheet, sheets_of_unit(session, sheet, serial) if row.is_draft else (), draft=row.is_draft)


def document_hash(document: dict[str, Any]) -> str:
    """SHA-256 over a document as JSON with its keys sorted. [hex]"""
    return link_of(_sorted_text(document))


def _sorted_text(document: dict[str, Any]) -> str:
    return json.dumps(document, sort_keys=True, separators=(",", ":"), ensure_ascii=False)


def sheet_hash(session: Session, key: str, version: int) -> str:
    """The hash of a version's document. Raises RefusedError for a sheet that is not there."""
    return link_of(_row(session, key, version).text)


def is_draft(session: Session, key: str, version: int) -> bool:
    """Whether a version is a draft. Raises RefusedError for a sheet that is not there."""
    return _row(session, key, version).is_draft


def _row(session: Session, key: str, version: int) -> SheetRow:
    row = session.get(SheetRow, (key, version))
    if row is None:
        raise RefusedError("sheet-missing", f"build sheet {key} version {version} is not there")
    # The session itself lets go of what nobody holds, and an entry asks for its sheet again and again.
    session.info.setdefault(SheetRow, {})[key, version] = row
    return row


@lru_cache(maxsize=256)
def _resolved(text: str, answers: frozenset[tuple[str, str]], quick_service: str | None) -> Resolved:
    return resolve(_read(text), dict(answers), quick_service)


def resolved_sheet(
    session: Session, key: str, version: int, answers: Mapping[str, str], quick_service: str | None = None
) -> Resolved:
    """A sheet resolved for a job's answers and the quick service it is; kept, since every entry of a job asks for it again.

    Raises RefusedError for a sheet that is not there.
    """
    return _resolved(_row(session, key, version).text, frozenset(answers.items()), quick_service)
