"""The stock: kept as written, matched in millimetres; what a job took is drawn once."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime

import pytest
from sqlalchemy import Engine, select, text

from ironkettle.store.base import session_of
from ironkettle.store.jobs.rows import JobRow
from ironkettle.store.shop.stock import StockItem, all_stock, draw, find_stock, low_stock
from ironkettle.store.shop.trail import trail

NOW = datetime(2026, 11, 28, 9, tzinfo=UTC)


def test_inch_and_metric_stand_side_by_side(workshop: Engine) -> None:
    with session_of(workshop) as session:
        stock = {item.key: item for item in all_stock(session)}
    sized = {key: size for key, item in stock.items() if (size := item.seal_size())}
    assert len(sized) >= 12
    inch = stock["s-1250-1625"]
    assert inch.surface == "1-1/4 in"
    size = sized["s-1250-1625"]
    # 1-1/4 in = 31.75 mm, 1-5/8 in = 41.275 mm, 1/4 in = 6.35 mm.
    assert (size.surface, size.groove, size.length) == pytest.approx((31.75, 41.275, 6.35))
    assert size.in_stock == 2
    assert "drawer 13" in size.name
    for key, one in sized.items():
        assert (one.groove > one.surface) == (one.side.value == "rod"), key
    # Rings, kits and parts have no housing.
    assert "o-44x3" in stock.keys() - sized.keys()


def job_of(workshop: Engine) -> uuid.UUID:
    with session_of(workshop) as session:
        return session.scalars(select(JobRow.id).limit(1)).one()


def test_a_job_draws_what_it_took_once(workshop: Engine) -> None:
    job = job_of(workshop)
    for taken in ({"o-44x3": 2}, {"o-44x3": 2}, {"o-44x3": 3, "k-5028": 1}):
        with session_of(workshop) as session:
            draw(session, job, 1001, taken, "bede", NOW)
    with session_of(workshop) as session:
        # 7 less 2, nothing the second time, one more the third time.
        assert find_stock(session, "o-44x3").in_stock == 4  # type: ignore[union-attr]
        assert find_stock(session, "k-5028").in_stock == 1  # type: ignore[union-attr]
        told = [(row.subject, row.after) for row in trail(session) if row.change == "drawn"]
    assert ("o-44x3", {"in_stock": 5, "job": 1001, "taken": 2}) in told
    assert len(told) == 3


def test_more_than_is_there_leaves_none_and_is_told(workshop: Engine) -> None:
    job = job_of(workshop)
    with session_of(workshop) as session:
        draw(session, job, 1001, {"o-45x3": 3, "never-heard-of": 2}, "bede", NOW)
    with session_of(workshop) as session:
        assert find_stock(session, "o-45x3").in_stock == 0  # type: ignore[union-attr]
        assert trail(session)[0].after["was_not_there"] == 2
        assert [item.key for item in low_stock(session)] == ["o-45x3"]


def test_the_database_takes_no_count_below_zero(workshop: Engine) -> None:
    with pytest.raises(Exception, match="in_stock_not_below_zero"), workshop.begin() as connection:
        connection.execute(text("UPDATE stock SET in_stock = -1 WHERE key = 'o-45x3'"))


def test_what_is_kept_no_more_is_not_on_the_shelf(workshop: Engine) -> None:
    with session_of(workshop) as session:
        item: StockItem = find_stock(session, "o-45x3")  # type: ignore[assignment]
        item.active = False
    with session_of(workshop) as session:
        assert "o-45x3" not in {item.key for item in all_stock(session)}
        assert "o-45x3" in {item.key for item in all_stock(session, ended=True)}
        assert low_stock(session) == []
