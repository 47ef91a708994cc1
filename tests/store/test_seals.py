"""The stock of seals: kept as written, matched in millimetres."""

from __future__ import annotations

import pytest
from sqlalchemy import Engine

from ironkettle.store.base import session_of
from ironkettle.store.seals import all_seals


def test_inch_and_metric_stand_side_by_side(workshop: Engine) -> None:
    with session_of(workshop) as session:
        stock = {item.key: item for item in all_seals(session)}
    assert len(stock) >= 12
    inch = stock["s-1250-1625"]
    assert inch.surface == "1-1/4 in"
    size = inch.size()
    # 1-1/4 in = 31.75 mm, 1-5/8 in = 41.275 mm, 1/4 in = 6.35 mm.
    assert (size.surface, size.groove, size.length) == pytest.approx((31.75, 41.275, 6.35))
    assert size.in_stock == 2
    assert "drawer 13" in size.name
    for item in stock.values():
        sized = item.size()
        assert (sized.groove > sized.surface) == (sized.side.value == "rod"), item.key
