"""Photos of jobs: re-encoded, small, sealed by their hash in the entry that tells of them."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.store.base import Base
from ironkettle.store.jobs.rows import JobRow


class PhotoRow(Base):
    """One photo; append-only. The pictures themselves are read only when they are asked for. [px]"""

    __tablename__ = "photos"

    id: Mapped[UUID] = mapped_column(primary_key=True)
    job_id: Mapped[UUID] = mapped_column(ForeignKey("jobs.id"), index=True)
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    taken_at: Mapped[datetime]
    sha256: Mapped[str]
    width: Mapped[int]
    height: Mapped[int]
    image: Mapped[bytes] = mapped_column(deferred=True)
    thumb: Mapped[bytes] = mapped_column(deferred=True)


def find_photo(session: Session, photo: UUID) -> PhotoRow | None:
    return session.get(PhotoRow, photo)


def photos_of(session: Session, job: UUID) -> dict[str, PhotoRow]:
    """The photos of a job by their key, without the pictures."""
    rows = session.scalars(select(PhotoRow).where(PhotoRow.job_id == job))
    return {str(row.id): row for row in rows}


def repairs_with_photos(session: Session, job: JobRow, limit: int) -> list[JobRow]:
    """Earlier jobs on the same unit that have photos, newest first. Jobs without photos are left out."""
    if job.unit_id is None:
        return []
    pictured = select(PhotoRow.job_id).where(PhotoRow.job_id == JobRow.id).exists()
    query = select(JobRow).where(JobRow.unit_id == job.unit_id, JobRow.number < job.number, pictured)
    return list(session.scalars(query.order_by(JobRow.number.desc()).limit(limit)))


def add_photo(session: Session, row: PhotoRow) -> None:
    session.add(row)
    session.flush()
