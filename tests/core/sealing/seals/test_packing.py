"""A V-packing set in its box."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.base.errors import RuleError
from ironkettle.core.sealing.seals import PackingBox, plan_packing


def test_packing_by_hand() -> None:
    # Box 45 × 30, 42 deep; header 6, follower 7, nut must enter 4: 25 mm for rings of 5.1 = 4 rings, 20.4 mm;
    # 5 % is 1.02 mm; lead 1.5 gives 0.68 of a turn.
    plan = plan_packing(PackingBox(45, 30, 42, 5.1, header=6, follower=7, lead=1.5, nut_reach=4))
    assert (plan.section, plan.rings) == (7.5, 4)
    assert plan.stack == pytest.approx(33.4)
    assert plan.compression == pytest.approx(1.02)
    assert plan.turns == pytest.approx(0.68)
    assert [f.code for f in plan.findings] == ["stack-order"]


def test_packing_that_cannot_be() -> None:
    with pytest.raises(RuleError, match="not smaller than the box bore"):
        PackingBox(30, 45, 42, 5)
    with pytest.raises(RuleError, match="does not take"):
        PackingBox(45, 30, 10, 5, header=6)
    few = plan_packing(PackingBox(45, 30, 16, 5, compression_pct=20))
    assert {"compression"} <= {f.code for f in few.findings}
    short = plan_packing(PackingBox(45, 30, 12, 5, nut_reach=4))
    assert {"few-rings"} <= {f.code for f in short.findings}
    assert plan_packing(PackingBox(45, 30, 12, 5, nut_reach=8)).rings == 0


@given(
    depth=st.floats(30, 120),
    height=st.floats(2, 10),
    ends=st.floats(0, 8),
    reach=st.floats(0, 6),
    percent=st.floats(3, 8),
    lead=st.floats(0.5, 4),
)
def test_the_stack_goes_in_and_one_ring_more_would_not(
    depth: float, height: float, ends: float, reach: float, percent: float, lead: float
) -> None:
    box = PackingBox(
        45, 30, depth, height, header=ends, follower=ends, lead=lead, nut_reach=reach, compression_pct=percent
    )
    plan = plan_packing(box)
    assert plan.stack + reach <= depth + 1e-6
    assert plan.stack + reach + height > depth - 1e-6
    assert plan.turns is not None
    assert plan.turns * lead == pytest.approx(plan.compression)
    assert plan.compression == pytest.approx(plan.rings * height * percent / 100)


def test_without_the_lead_no_turns_are_claimed() -> None:
    assert plan_packing(PackingBox(45, 30, 42, 5)).turns is None
