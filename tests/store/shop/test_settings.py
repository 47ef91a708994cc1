"""Shop settings as kept: only what differs, one row a rule."""

from __future__ import annotations

from datetime import UTC, datetime

from sqlalchemy import Engine, func, select

from ironkettle.store.base import session_of
from ironkettle.store.shop.settings import ShopSettingRow, reset_rule, set_rule, setting_rows, settings_in_force

NOW = datetime(2026, 11, 24, 9, tzinfo=UTC)


def test_set_again_and_reset(workshop: Engine) -> None:
    with session_of(workshop) as session:
        assert settings_in_force(session).own == {}
        set_rule(session, "uncertainty", 0.1, "bede", NOW)
        set_rule(session, "uncertainty", 0.2, "ines", NOW)
    with session_of(workshop) as session:
        assert settings_in_force(session).uncertainty == 0.2
        assert setting_rows(session)["uncertainty"].who == "ines"
        assert session.scalar(select(func.count()).select_from(ShopSettingRow)) == 1
        reset_rule(session, "uncertainty")
        reset_rule(session, "uncertainty")
    with session_of(workshop) as session:
        assert settings_in_force(session).own == {}
