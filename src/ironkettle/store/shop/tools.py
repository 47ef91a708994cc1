"""The workshop's torque wrenches and gauges."""

from __future__ import annotations

from datetime import date

from sqlalchemy import select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.store.base import Base


class WrenchTool(Base):
    __tablename__ = "wrenches"

    key: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    low: Mapped[str]
    high: Mapped[str]
    accuracy_pct: Mapped[float]
    calibration: Mapped[str] = mapped_column(default="")
    calibrated_until: Mapped[date | None] = mapped_column(default=None)
    # It clicks at the torque it is set to, and shows none.
    clicks: Mapped[bool] = mapped_column(default=False)
    active: Mapped[bool] = mapped_column(default=True)


class GaugeTool(Base):
    __tablename__ = "gauges"

    key: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    range: Mapped[str]
    resolution: Mapped[str]
    accuracy_pct: Mapped[float]
    # By how much of the reading it may drift or stick in a hold, as its maker states it. [%]
    stability_pct: Mapped[float | None] = mapped_column(default=None)
    calibration: Mapped[str] = mapped_column(default="")
    calibrated_until: Mapped[date | None] = mapped_column(default=None)
    active: Mapped[bool] = mapped_column(default=True)


def all_wrenches(session: Session) -> list[WrenchTool]:
    """The wrenches in use."""
    return list(session.scalars(select(WrenchTool).where(WrenchTool.active).order_by(WrenchTool.key)))


def all_gauges(session: Session) -> list[GaugeTool]:
    """The gauges in use."""
    return list(session.scalars(select(GaugeTool).where(GaugeTool.active).order_by(GaugeTool.key)))


def add_tool(session: Session, tool: WrenchTool | GaugeTool) -> None:
    """Add a wrench or gauge; a key in use is refused by the database and told as a conflict."""
    session.add(tool)
    session.flush()
