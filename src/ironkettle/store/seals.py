"""The shop's stock of lip seals, wipers, slide rings, bands, packings and shaft seals."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.quantities import read_length
from ironkettle.core.seals import SealKind, SealSide, SealSize
from ironkettle.store.base import Base

SOURCE = "shop stock"


class SealItem(Base):
    """Dimensions are kept as written, in inch or mm."""

    __tablename__ = "seal_stock"

    key: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    kind: Mapped[str]
    side: Mapped[str]
    surface: Mapped[str]
    groove: Mapped[str]
    length: Mapped[str]
    in_stock: Mapped[int]
    place: Mapped[str]

    def size(self) -> SealSize:
        """The item as the core matches it. [mm]"""
        return SealSize(
            SealKind(self.kind),
            SealSide(self.side),
            read_length(self.surface, "surface"),
            read_length(self.groove, "groove"),
            read_length(self.length, "length"),
            f"{self.name} ({self.place})",
            SOURCE,
            self.in_stock,
        )


def all_seals(session: Session) -> list[SealItem]:
    return list(session.scalars(select(SealItem).order_by(SealItem.kind, SealItem.key)))


def add_seal(session: Session, item: SealItem) -> None:
    """Add an item; a key in use is refused by the database and told as a conflict."""
    session.add(item)
    session.flush()
