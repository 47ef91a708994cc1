"""What the rules of a job may look up: its wrenches, gauges and stock, and the tables with its limits."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from sqlalchemy.orm import Session

from ironkettle.core.jobs import OnShelf, Tables
from ironkettle.core.jobs.runs import GaugeUsed, WrenchUsed
from ironkettle.core.sealing.compounds import Lubricant
from ironkettle.core.sealing.grooves import GlandTables
from ironkettle.core.shop.settings import ShopSettings
from ironkettle.reference import (
    cleaning,
    compounds,
    extrusion_limits,
    failure_table,
    fastener_tables,
    fluids,
    gland_rows,
    ring_table,
)
from ironkettle.store.shop.lubricants import own_lubricants
from ironkettle.store.shop.stock import all_stock, shelf_of
from ironkettle.store.shop.tools import all_gauges, all_wrenches


@dataclass(frozen=True)
class Shop:
    """``wrenches`` and ``gauges`` by key, as they stand in the list now; ``lubricants``: its own names of some."""

    wrenches: Mapping[str, WrenchUsed]
    gauges: Mapping[str, GaugeUsed]
    shelf: tuple[OnShelf, ...]
    lubricants: Mapping[str, Lubricant]


def shop_of(session: Session) -> Shop:
    """The shop as it stands now."""
    wrenches = {
        row.key: WrenchUsed(
            name=row.name, low=row.low, high=row.high, accuracy_pct=row.accuracy_pct,
            calibrated_until=row.calibrated_until, calibration=row.calibration or None, clicks=row.clicks,
        )
        for row in all_wrenches(session)
    }  # fmt: skip
    gauges = {
        row.key: GaugeUsed(
            name=row.name, range=row.range, resolution=row.resolution, accuracy_pct=row.accuracy_pct,
            stability_pct=row.stability_pct,
            calibrated_until=row.calibrated_until, calibration=row.calibration or None,
        )
        for row in all_gauges(session)
    }  # fmt: skip
    return Shop(wrenches, gauges, shelf_of(all_stock(session)), own_lubricants(session))


def gland_tables(settings: ShopSettings) -> GlandTables:
    """The tables of the gland rules with this shop's limits."""
    return GlandTables(extrusion_limits(), gland_rows(), settings.limits, compounds())


def tables_of(settings: ShopSettings) -> Tables:
    """The tables of the tasks with a set of shop settings."""
    return _tables(tuple(sorted(settings.own.items())))


@lru_cache(maxsize=32)
def _tables(own: tuple[tuple[str, float], ...]) -> Tables:
    """The tables for a set of shop settings; kept, because they remember the searches made in them."""
    settings = ShopSettings(dict(own))
    return Tables(
        ring_table(), fluids(), gland_tables(settings), failure_table(), fastener_tables(), cleaning(), settings
    )
