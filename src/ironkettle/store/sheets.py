"""Build sheets, every version kept."""

from __future__ import annotations

import json
from datetime import datetime
from functools import lru_cache
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.buildsheets import BuildSheet, sheet_from_document
from ironkettle.core.errors import RefusedError
from ironkettle.store.base import Base


class SheetRow(Base):
    __tablename__ = "sheets"

    key: Mapped[str] = mapped_column(primary_key=True)
    version: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str]
    family: Mapped[str]
    document: Mapped[dict[str, Any]]
    added_at: Mapped[datetime] = mapped_column(server_default=func.now())


@lru_cache(maxsize=128)
def _checked(text: str) -> BuildSheet:
    return sheet_from_document(json.loads(text))


def add_sheet(session: Session, sheet: BuildSheet) -> SheetRow:
    """Store a checked sheet. Raises RefusedError when this version exists with other contents."""
    document = sheet.model_dump(mode="json", exclude_none=True)
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


def load_sheet(session: Session, key: str, version: int | None = None) -> BuildSheet | None:
    """The sheet of that key, in that version or the newest; None when there is none."""
    query = select(SheetRow).where(SheetRow.key == key).order_by(SheetRow.version.desc()).limit(1)
    if version is not None:
        query = select(SheetRow).where(SheetRow.key == key, SheetRow.version == version)
    row = session.scalars(query).one_or_none()
    return None if row is None else _checked(json.dumps(row.document, sort_keys=True))
