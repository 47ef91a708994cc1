"""What a new version of a sheet loosens: told on top, never the other way round. Expected: by the meaning of each field."""

from __future__ import annotations

import copy
from collections.abc import Callable
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ironkettle.core.sheets.document.loosening import Weight, changes, loosens
from tests.laws import tried
from tests.tiny import sheet_of, unit

RAM = unit("swing-bridge-ram")
REGULATOR = unit("control-air-regulator")
MASK = unit("escape-set-regulator")
Edit = Callable[[dict[str, Any]], object]


def trial_of(document: dict[str, Any], key: str) -> dict[str, Any]:
    return next(one for one in document["tests"] if one["key"] == key)


def step_of(document: dict[str, Any], **having: Any) -> dict[str, Any]:
    return next(one for one in document["steps"] if all(one.get(name) == value for name, value in having.items()))


def point_of(document: dict[str, Any], key: str) -> dict[str, Any]:
    return next(point for part in document["parts"] for point in part.get("points", []) if point["key"] == key)


def told(document: dict[str, Any], edit: Edit) -> tuple[bool, set[Weight]]:
    after = copy.deepcopy(document)
    edit(after)
    found = changes(sheet_of(document), sheet_of(after))
    assert found, "nothing changed"
    return loosens(found), {one.weight for one in found if one.loosens}


LOOSENS: dict[str, tuple[dict[str, Any], Edit]] = {
    "a lower authority": (MASK, lambda d: d.update(authority="none")),
    "no authority": (MASK, lambda d: d.pop("authority")),
    "another guard as strict": (MASK, lambda d: d.update(authority="breathing_air")),
    "a test dropped": (RAM, lambda d: d["tests"].pop()),
    "a larger leak": (RAM, lambda d: trial_of(d, "rod-side-hold").update(leak_limit="5 ml/min")),
    "a larger leak in another unit": (RAM, lambda d: trial_of(d, "rod-side-hold").update(leak_limit="1 l/h")),
    "a lower test pressure": (RAM, lambda d: trial_of(d, "rod-side-hold").update(pressure="18 bar")),
    "no glass at the open port": (RAM, lambda d: trial_of(d, "rod-side-hold").pop("glass")),
    "a test as found only": (RAM, lambda d: trial_of(d, "rod-side-hold").update(when="as_found")),
    "a caution dropped": (RAM, lambda d: trial_of(d, "rod-side-hold").pop("caution")),
    "a caution talked down": (RAM, lambda d: trial_of(d, "rod-side-hold").update(caution="Take care.")),
    "a wider band": (REGULATOR, lambda d: trial_of(d, "set").update(value="4 bar ±0.5")),
    "a band moved": (REGULATOR, lambda d: trial_of(d, "set").update(value="5 bar ±0.1")),
    "a higher lock-up": (REGULATOR, lambda d: trial_of(d, "set").update(lock_up="6 bar")),
    "fewer repeats": (REGULATOR, lambda d: trial_of(d, "set").update(repeats=2)),
    "more creep": (REGULATOR, lambda d: trial_of(d, "set")["creep"].update(limit="1 bar")),
    "creep over a longer time": (REGULATOR, lambda d: trial_of(d, "set")["creep"].update({"in": "50 min"})),
    "no creep": (REGULATOR, lambda d: trial_of(d, "set").pop("creep")),
    "a sign that says less": (MASK, lambda d: trial_of(d, "wet").update(sign="looks dry")),
    "a sign that need not be waited for": (MASK, lambda d: trial_of(d, "wet").update(sign="no bubble under water")),
    "less time to look": (MASK, lambda d: trial_of(d, "wet").update(seconds=5)),
    "a look that takes less time": (RAM, lambda d: d["observations"][1].update(name="Drift under load")),
    "a place that is proven no more": (RAM, lambda d: d["stations"][0].update(unproven="no time")),
    "a zone that is pressed no more": (MASK, lambda d: trial_of(d, "wet").pop("zone")),
    "another family": (RAM, lambda d: d.update(family="other")),
    "a fluid more": (RAM, lambda d: d["service"]["fluids"].append("water-glycol")),
    "a point dropped": (RAM, lambda d: next(p for p in d["parts"] if p.get("points"))["points"].pop()),
    "a limit in place of the shop's": (RAM, lambda d: point_of(d, "pit").update(limit="at most 1 mm", rule=None)),
    "a worse end for a bad rod": (RAM, lambda d: point_of(d, "pit").update({"else": "reuse"})),
    "a step dropped": (RAM, lambda d: d["steps"].pop(0)),
    "what is let down before": (RAM, lambda d: next(s for s in d["steps"] if s.get("relieves")).pop("relieves")),
    "a higher rating": (RAM, lambda d: d["service"].update(pressure="400 bar")),
}
HOLDS: dict[str, tuple[dict[str, Any], Edit]] = {
    "a name": (RAM, lambda d: d.update(name="Latch ram")),
    "words to find it by": (RAM, lambda d: d["like"].append("bridge")),
    "a marking": (RAM, lambda d: d["markings"].append("FN-LR/2")),
    "a smaller leak": (RAM, lambda d: trial_of(d, "rod-side-hold").update(leak_limit="0.4 ml/min")),
    "the same leak in another unit": (RAM, lambda d: trial_of(d, "rod-side-hold").update(leak_limit="30 ml/h")),
    "how a test is run": (RAM, lambda d: trial_of(d, "rod-side-hold").update(how="As before, and slowly.")),
    "a sign that says more": (MASK, lambda d: trial_of(d, "wet").update(sign=f"{trial_of(d, 'wet')['sign']}, and none at the hose")),
    "more time to look": (MASK, lambda d: trial_of(d, "wet").update(seconds=300)),
    "a caution more": (RAM, lambda d: trial_of(d, "rod-side-hold").update(caution="Stand clear of the rod and the ports. Guard down. Goggles.")),
    "a narrower band": (REGULATOR, lambda d: trial_of(d, "set").update(value="4 bar ±0.05")),
    "more repeats": (REGULATOR, lambda d: trial_of(d, "set").update(repeats=7)),
    "less creep": (REGULATOR, lambda d: trial_of(d, "set")["creep"].update(limit="0.05 bar")),
    "a stricter authority": (RAM, lambda d: d.update(authority="life_support")),
}  # fmt: skip


@pytest.mark.parametrize("what", LOOSENS)
def test_what_asks_for_less_loosens(what: str) -> None:
    is_looser, weights = told(*LOOSENS[what])
    assert is_looser
    assert weights & {Weight.SAFETY, Weight.LIMIT}


@pytest.mark.parametrize("what", HOLDS)
def test_what_asks_for_as_much_or_more_does_not(what: str) -> None:
    assert told(*HOLDS[what])[0] is False


def test_what_loosens_stands_on_top_and_the_authority_weighs_as_safety() -> None:
    after = copy.deepcopy(MASK) | {"authority": "none", "name": "New name"}
    first, *rest = changes(sheet_of(MASK), sheet_of(after))
    assert (first.path, first.was, first.now) == ("authority", "life_support", "none")
    assert (first.weight, first.loosens) == (Weight.SAFETY, True)
    assert [one.path for one in rest] == ["name"]
    assert rest[0].weight is Weight.TEXT


@tried(40)
@given(was=st.floats(0.05, 50), now=st.floats(0.05, 50))
def test_of_two_leaks_the_larger_is_the_looser(was: float, now: float) -> None:
    one, other = copy.deepcopy(RAM), copy.deepcopy(RAM)
    trial_of(one, "rod-side-hold")["leak_limit"] = f"{was:.3f} ml/min"
    trial_of(other, "rod-side-hold")["leak_limit"] = f"{now:.3f} ml/min"
    assert loosens(changes(sheet_of(one), sheet_of(other))) is (round(now, 3) > round(was, 3))
