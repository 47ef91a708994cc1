"""The shop's own shop settings: only what differs from the shipped value is kept."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from ironkettle.core.shop.settings import ShopSettings
from ironkettle.store.base import Base


class ShopSettingRow(Base):
    __tablename__ = "shop_settings"

    key: Mapped[str] = mapped_column(primary_key=True)
    value: Mapped[float]
    who: Mapped[str] = mapped_column(ForeignKey("people.key"))
    changed_at: Mapped[datetime]


def setting_rows(session: Session) -> dict[str, ShopSettingRow]:
    """The rules this shop has changed, by key."""
    return {row.key: row for row in session.scalars(select(ShopSettingRow))}


def settings_in_force(session: Session) -> ShopSettings:
    """All rules in force."""
    return ShopSettings({row.key: row.value for row in setting_rows(session).values()})


def set_rule(session: Session, key: str, value: float, who: str, now: datetime) -> None:
    """Keep the shop's value of one rule; checked by the core before."""
    session.merge(ShopSettingRow(key=key, value=value, who=who, changed_at=now))
    session.flush()


def reset_rule(session: Session, key: str) -> None:
    """Back to the shipped value; nothing happens when it stands there already."""
    row = session.get(ShopSettingRow, key)
    if row is not None:
        session.delete(row)
        session.flush()
