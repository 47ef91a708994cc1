"""Points of a part held against the sheet's or the shop's limit, slips told, parts sent out, ladders and practice options."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.inspecting import PointRead, points_of, verdict_of
from ironkettle.core.jobs.kinds.inspection import POINTS, standing
from ironkettle.core.jobs.practice import practices_in
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.rungs import RUNGS
from ironkettle.core.jobs.task import Status, Task
from ironkettle.core.shop.settings import ShopSettings
from tests.bench import Job
from tests.tiny import plug, sheet_of, told, unit

POINT = {"key": "p", "ask": "How deep?", "read": "length", "limit": "at most 0.05 mm"}


def job_with(*points: dict[str, Any], settings: dict[str, float] | None = None, **changes: Any) -> Job:
    job = Job(sheet_of(plug(parts__1__points=list(points), **changes)))
    under(job, settings or {})
    job.walk(until=lambda task: task.key == "measure:plug")
    return job


def under(job: Job, settings: dict[str, float]) -> None:
    """The job as a shop with these rules works it."""
    job.tables = replace(job.tables, settings=ShopSettings(settings))


def read(job: Job, *values: str, note: str = "", **more: Any) -> None:
    job.do(
        {
            "kind": "points_read",
            "part": "plug",
            "points": [{"point": "p", "values": list(values)}],
            "note": note,
            **more,
        }
    )


def test_a_house_limit_stands_where_the_sheet_has_none_and_the_shop_may_set_it() -> None:
    rule = {key: value for key, value in POINT.items() if key != "limit"} | {"rule": "rod_pit"}
    usual = job_with(rule, family="cylinder")
    assert points_of(usual.case(), usual.resolved.parts["plug"])[0].limit == "at most 0.05 mm"
    assert usual.task("measure:plug").asks[0].hint == "at most 0.05 mm (shop setting)"
    read(usual, "0.04 mm")
    assert standing(usual.case(), "plug") == "reuse"
    strict = job_with(rule, family="cylinder", settings={"limit_cylinder_rod_pit": 0.03})
    read(strict, "0.04 mm")
    assert standing(strict.case(), "plug") == "replace"
    # The verdict stands as it was judged, whatever the shop decides later.
    under(strict, {})
    assert standing(strict.case(), "plug") == "replace"


def test_a_limit_of_what_is_worked_out_is_not_taken_for_one_of_its_readings() -> None:
    job = Job(sheet_of(unit("weed-skip-ram")))
    job.walk(until=lambda task: task.key == "measure:barrel")
    hints = {ask.hint for ask in job.task("measure:barrel").asks if ask.field.startswith("points.1.")}
    assert hints == {"nominal 50 mm +0.039/-0; ovality at most 0.05 mm (shop setting)"}


def test_a_house_limit_that_a_family_does_not_have_is_a_fault_of_the_sheet() -> None:
    rule = {"key": "p", "ask": "How deep?", "read": "length", "rule": "rod_pit"}
    assert "no shop limit" in told(family="coupler", parts__1__points=[rule])["parts.1.points.0.rule"]
    assert told(family="cylinder", parts__1__points=[rule]) == {}
    bare = {"key": "p", "ask": "How deep?", "read": "length"}
    assert "or a shop setting" in told(parts__1__points=[bare])["parts.1.points.0.limit"]
    wear = POINT | {"compute": "wear"}
    assert "needed for wear" in told(parts__1__points=[wear])["parts.1.points.0.nominal"]
    oval = POINT | {"compute": "ovality"}
    assert "two readings" in told(parts__1__points=[oval])["parts.1.points.0.places"]


@pytest.mark.parametrize(
    ("point", "value"),
    [
        (POINT, "5 mm"),
        (POINT | {"nominal": "28 mm", "limit": "at most 0.05 mm", "compute": "wear"}, "2.8 mm"),
        (POINT | {"nominal": "28 mm", "limit": "at most 0.05 mm", "compute": "wear"}, "280 mm"),
    ],
)
def test_a_reading_a_hundred_times_off_is_asked_back_and_taken_when_it_is_so(point: dict[str, Any], value: str) -> None:
    job = job_with(point)
    with pytest.raises(RuleError, match="check again") as refused:
        read(job, value)
    assert refused.value.faults[0].field == "points.0.values.0"
    read(job, value, note="measured twice")
    assert standing(job.case(), "plug") == "replace"


@pytest.mark.parametrize("value", ["0.04 mm", "0.9 mm", "1 mm"])
def test_a_reading_within_twenty_times_the_limit_is_taken(value: str) -> None:
    job = job_with(POINT)
    read(job, value)
    assert job.state.has(POINTS, "plug")


def test_what_is_on_the_unit_again_is_not_condemned_behind_its_back() -> None:
    job = job_with(POINT)
    read(job, "0.04 mm")
    job.walk(until=lambda task: task.stage.value == "release")
    with pytest.raises(RefusedError, match="take it apart first"):
        read(job, "0.09 mm")
    # Read again and found as good as before: nothing against it.
    read(job, "0.03 mm")
    job.do({"kind": "taken_apart", "step": "out", "reason": "looked at it again"})
    read(job, "0.09 mm")
    assert standing(job.case(), "plug") == "replace"


def test_a_part_sent_out_comes_back_and_is_read_again() -> None:
    job = job_with(POINT | {"else": "send_out"})
    read(job, "0.09 mm")
    assert job.task("measure:plug").status is Status.DONE
    job.walk(until=lambda task: task.key == "receive:part-plug")
    job.do({"kind": "part_arrived", "what": "part-plug", "counted": 1, "serial": "none"})
    assert job.task("measure:plug").status is not Status.DONE
    read(job, "0.01 mm")
    assert standing(job.case(), "plug") == "reuse"
    assert job.task("measure:plug").status is Status.DONE
    job.walk()


def test_a_part_replaced_is_not_read_again() -> None:
    job = job_with(POINT)
    read(job, "0.09 mm")
    job.walk(until=lambda task: task.key == "receive:part-plug")
    job.do({"kind": "part_arrived", "what": "part-plug", "counted": 1, "serial": "none"})
    assert job.task("measure:plug").status is Status.DONE


PITTED = POINT | {"dress": {"to": "0.10 mm", "how": "flap wheel", "costs": "the chrome is through", "pits": True}}


def test_a_pit_is_dressed_or_rejected_as_the_shop_has_it() -> None:
    rejecting = job_with(PITTED)
    read(rejecting, "0.08 mm")
    assert standing(rejecting.case(), "plug") == "replace"
    held = rejecting.task("measure:plug").practice
    assert held is not None
    assert held.way.words == "reject it"
    dressing = job_with(PITTED, settings={"practice_pits": 1.0})
    read(dressing, "0.08 mm")
    assert standing(dressing.case(), "plug") == "dress"
    task = dressing.task("dress:plug")
    assert task.shows == "drawback: the chrome is through"
    read(dressing, "0.11 mm")
    assert standing(dressing.case(), "plug") == "replace"
    # What is no pit is dressed under either practice option.
    score = job_with(POINT | {"dress": {"to": "0.10 mm"}})
    read(score, "0.08 mm")
    assert standing(score.case(), "plug") == "dress"


def test_the_computed_figure_and_the_verdict_stand_in_the_log() -> None:
    job = job_with(
        {
            "key": "p",
            "ask": "Across and along",
            "read": "length",
            "places": 2,
            "compute": "ovality",
            "limit": "at most 0.03 mm",
            "nominal": "20 mm",
        }
    )
    read(job, "20.00 mm", "19.96 mm")
    words = payload_words(job.resolved, job.state.get(POINTS, "plug"))
    assert "20.00 mm, 19.96 mm (ovality 0.04 mm)" in words
    assert words.endswith("; replace")


def ladder_job() -> Job:
    job = Job(sheet_of(unit("loader-lift-ram")))
    job.walk(until=lambda task: task.key == "step:gland-turned")
    return job


def rung(job: Job, place: int, **told: Any) -> dict[str, Any]:
    one = job.task("step:gland-turned").ladder[place]
    return {"kind": "rung_tried", "part": one.part, "rung": one.key, "moved": False, **told}


def test_what_was_tried_on_a_ladder_stands_on_it_and_harm_is_looked_at() -> None:
    job = ladder_job()
    ladder = job.task("step:gland-turned").ladder
    place = next(place for place, one in enumerate(ladder) if one.may)
    job.do(rung(job, 0))
    assert job.task("step:gland-turned").ladder[0].tried == "did not move it"
    part = job.resolved.parts[ladder[place].part]
    before = len(points_of(job.case(), part))
    job.do(rung(job, place, moved=True, harm=True))
    assert job.task("step:gland-turned").ladder[place].tried == "moved it, and caused damage"
    points = points_of(job.case(), part)
    assert len(points) == before + 1
    assert points[-1].bad == [ladder[place].may]
    # A second try without harm takes none away.
    job.do(rung(job, place, moved=True))
    assert len(points_of(job.case(), part)) == before + 1
    words = payload_words(job.resolved, job.state.get(RUNGS, (part.key, ladder[place].key)))
    assert "it moved, and damage was caused" in words
    # Left where it is, the ladder stops nothing; the harm is asked for at the inspection.
    job.walk(until=lambda task: task.key == f"measure:{part.key}")
    asks = job.task(f"measure:{part.key}").asks
    assert any("check what it did" in ask.label for ask in asks)
    job.walk()


def test_harm_done_after_a_part_was_read_is_read_again() -> None:
    job = ladder_job()
    ladder = job.task("step:gland-turned").ladder
    place = next(place for place, one in enumerate(ladder) if one.may)
    key = f"measure:{ladder[place].part}"
    job.walk(until=lambda task: task.stage.value == "kit")
    job.do(rung(job, place, moved=True, harm=True))
    assert job.task(key).status is not Status.DONE


@pytest.mark.parametrize("change", [{"part": "teapot"}, {"rung": "teapot"}])
def test_an_unknown_rung_is_refused(change: dict[str, str]) -> None:
    job = ladder_job()
    with pytest.raises(RuleError):
        job.do(rung(job, 0) | change)


def of_ring(job: Job) -> Task:
    return job.task("fit:ring")


def stripped(settings: dict[str, float] | None = None, signs: str = "none", **changes: Any) -> Job:
    job = Job(sheet_of(plug(kits=None, **changes)))
    under(job, settings or {})
    job.walk(until=lambda task: task.key == "find:ring")
    job.do({"kind": "element_found", "element": "ring", "present": True, "signs": signs})
    return job


def keep(job: Job) -> None:
    job.do({"kind": "step_done", "step": "wash"})
    job.do({"kind": "element_fitted", "element": "ring", "reused": True, "lubricant": "dry"})


def test_a_seal_that_looks_sound_is_kept_only_where_the_shop_keeps_it() -> None:
    with pytest.raises(RuleError, match="one use only"):
        keep(stripped())
    keeping = stripped({"practice_seals": 1.0})
    assert "reused" in [ask.field for ask in of_ring(keeping).asks]
    keep(keeping)
    with pytest.raises(RuleError, match="does not look sound"):
        keep(stripped({"practice_seals": 1.0}, signs="flat_both_sides"))
    # What the sheet says is of one use stays so.
    one_use = {"stations__0__seats__0__elements__0__one_use": True}
    with pytest.raises(RuleError, match="one use only"):
        keep(stripped({"practice_seals": 1.0}, **one_use))


@pytest.mark.parametrize(("way", "key"), [(0, "service_fluid"), (1, "lithium_grease"), (2, "dry")])
def test_fitted_with_what_the_shop_says_where_the_sheet_is_silent(way: float, key: str) -> None:
    def proposed(job: Job) -> Any:
        return next(ask for ask in of_ring(job).asks if ask.field == "lubricant").proposed

    job = stripped({"practice_fitting": way})
    assert proposed(job) == key
    said = stripped({"practice_fitting": way}, stations__0__seats__0__elements__0__lubricant="silicone grease")
    assert proposed(said) == "silicone_grease"
    # What the shop does gives way to what the compound stands.
    epdm = stripped({"practice_fitting": way}, stations__0__seats__0__elements__0__compound="EPDM")
    assert proposed(epdm) == {0: "silicone_grease", 1: "silicone_grease", 2: "dry"}[int(way)]
    gasket = stripped({"practice_fitting": way}, stations__0__seats__0__elements__0__kind="gasket",
                      stations__0__seats__0__elements__0__ring=None)  # fmt: skip
    assert proposed(gasket) == "dry"


def test_the_practice_options_a_job_rests_on_are_named_once_each() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    case: Case = job.case()
    held = [practice.option.key for practice in practices_in(case, job.tasks())]
    assert len(held) == len(set(held))
    assert {"seals", "aim", "pry", "scrap", "place"} <= set(held)


@pytest.mark.parametrize(
    ("unit_key", "part", "point", "sign", "verdict"),
    [
        ("dosing-motor", "valve-block", "seats", "lime", "dress"),
        ("dosing-motor", "valve-block", "seats", "nick", "replace"),
        ("needle-scaler", "anvil", "scars", "scarred", "dress"),
        ("needle-scaler", "anvil", "scars", "cracked", "replace"),
        ("swing-bridge-ram", "barrel", "slot", "burr", "dress"),
        ("swing-bridge-ram", "barrel", "slot", "torn edge", "replace"),
    ],
)
def test_of_several_signs_only_those_named_are_dressed_out(
    unit_key: str, part: str, point: str, sign: str, verdict: str
) -> None:
    job = Job(sheet_of(unit(unit_key)))
    spec = job.resolved.parts[part]
    read = [PointRead(point=point, seen=[sign])]
    assert verdict_of(job.case(), spec, read).value == verdict
    both = [PointRead(point=point, seen=next(one for one in spec.points if one.key == point).bad)]  # type: ignore[union-attr]
    assert verdict_of(job.case(), spec, both).value == "replace"
