"""Signs at what came off, the cause decided by a person, and what puts it right as tasks of the job."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs.circumstances import circumstances_of
from ironkettle.core.jobs.kinds.cause import CAUSES
from ironkettle.core.jobs.kinds.correction import decided_causes
from ironkettle.core.jobs.kinds.find import FOUND
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.state import Payload
from ironkettle.core.jobs.task import Status
from ironkettle.core.sealing.compounds import Lubricant
from ironkettle.core.sealing.failures import Cause
from tests.bench import Job
from tests.tiny import plug, sheet_of, unit


def ram() -> Job:
    """The latch ram, stripped as far as the rod lip."""
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "find:rod-lip")
    return job


def found(element: str, **told: Any) -> dict[str, Any]:
    return {"kind": "element_found", "element": element, "present": True, **told}


def keys(job: Job, start: str) -> list[str]:
    return [task.key for task in job.tasks() if task.key.startswith(start)]


def to_causes(job: Job) -> None:
    job.walk(until=lambda task: task.stage.value == "inspect" and task.key.startswith("cause:"))


def test_a_sound_unit_asks_for_no_cause() -> None:
    job = ram()
    job.do(found("rod-lip", faced="rod_side", signs="none"))
    job.walk(until=lambda task: task.stage.value == "match")
    assert keys(job, "cause:") == []


def test_signs_are_offered_as_pictures_the_sound_one_first() -> None:
    ask = next(ask for ask in ram().task("find:rod-lip").asks if ask.field == "signs")
    offered = [choice.key for choice in ask.choices]
    assert offered[0] == "none"
    assert {"lip_torn", "lip_folded", "scored_along"} <= set(offered)
    assert not {"spiral_cuts", "energiser_spoiled", "reversed"} & set(offered)


def test_a_reversed_lip_speaks_by_itself_and_fitting_it_right_puts_it_right() -> None:
    job = ram()
    job.do(found("rod-lip", faced="outside", signs="none"))
    to_causes(job)
    task = job.task("cause:rod-lip")
    assert task.asks[0].choices[0].key == "reversed"
    assert "it faced open air and must face rod side" in str(task.asks[0].choices[0].sign)
    job.do({"kind": "cause_decided", "element": "rod-lip", "cause": "reversed", "corrections": ["right_way"]})
    told = job.state.get(CAUSES, "rod-lip")
    assert told.named == "fitted the wrong way round"
    assert told.share > 0.8
    assert job.task("correct:rod-lip:right_way").status is not Status.DONE
    assert "correct:rod-lip:right_way" not in job.task("fit:rod-lip").blocked_by
    job.walk(until=lambda task: task.key == "sign")
    assert job.task("correct:rod-lip:right_way").status is Status.DONE
    (told,) = decided_causes(job.case())
    assert told.customer == "The seal had been fitted the wrong way round."
    assert told.corrected == ("Fit it the right way round, as drawn",)


def scored(job: Job) -> Job:
    job.do(found("rod-lip", faced="rod_side", signs=["scored_along", "dirt_embedded"]))
    to_causes(job)
    return job


def test_what_puts_it_right_comes_before_the_new_one_goes_in() -> None:
    job = scored(ram())
    job.do({"kind": "cause_decided", "element": "rod-lip", "cause": "dirt", "corrections": ["flush", "renew_wiper"]})
    assert "flush the unit and its lines" in " ".join(job.task("fit:rod-lip").blocked_by).lower()
    with pytest.raises(RuleError, match="correction that was decided on"):
        job.do({"kind": "correction_made", "element": "rod-lip", "correction": "bleed"})
    job.walk(until=lambda task: task.key == "correct:rod-lip:flush")
    job.do(
        {"kind": "correction_made", "element": "rod-lip", "correction": "flush", "note": "20 l through a fine filter"}
    )
    assert job.task("correct:rod-lip:flush").status is Status.DONE
    job.walk()
    assert decided_causes(job.case())[0].corrected == (
        "Flush the unit and its lines, change the filter",
        "Renew the wiper",
    )


def test_a_cause_against_all_evidence_is_taken_with_its_reason_only() -> None:
    job = scored(ram())
    against = {
        "kind": "cause_decided",
        "element": "rod-lip",
        "cause": "shrinkage",
        "corrections": ["change_compound_shrunk"],
    }
    with pytest.raises(RuleError, match="this is under 1 %") as refused:
        job.do(against)
    assert refused.value.faults[0].field == "reason"
    job.do({**against, "reason": "the bench lamp showed it loose on the rod"})
    told = job.state.get(CAUSES, "rod-lip")
    assert told.cause is Cause.SHRINKAGE
    assert told.share < 0.05


def test_the_server_works_out_share_and_evidence_whatever_was_sent() -> None:
    job = scored(ram())
    job.do({
        "kind": "cause_decided", "element": "rod-lip", "cause": "dirt", "corrections": ["flush"],
        "share": 1.0, "evidence": ["because I say so"], "named": "gremlins",
    })  # fmt: skip
    told = job.state.get(CAUSES, "rod-lip")
    assert told.share < 1
    assert told.named == "dirt in the fluid or from outside"
    assert "scored along the stroke: strong evidence for it" in told.evidence
    assert "because I say so" not in told.evidence


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"corrections": ["bleed"]}, "corrections.0"),
        ({"corrections": []}, "corrections"),
        ({"element": "teapot"}, "element"),
    ],
)
def test_what_does_not_belong_is_refused(change: dict[str, Any], field: str) -> None:
    job = scored(ram())
    with pytest.raises(RuleError) as refused:
        job.do({"kind": "cause_decided", "element": "rod-lip", "cause": "dirt", "corrections": ["flush"], **change})
    assert refused.value.faults[0].field == field


def test_nothing_is_decided_on_what_was_not_looked_at() -> None:
    job = ram()
    with pytest.raises(RefusedError, match="how it was found"):
        job.do({"kind": "cause_decided", "element": "rod-lip", "cause": "dirt", "corrections": ["flush"]})
    with pytest.raises(RefusedError, match="decide on the cause first"):
        job.do({"kind": "correction_made", "element": "rod-lip", "correction": "flush"})
    with pytest.raises(RuleError, match="signs are not needed for a missing seal"):
        job.do(found("rod-lip", present=False, signs=["shrunk"], note="not there"))


def test_a_missing_backup_asks_for_the_cause_of_its_ring() -> None:
    job = Job(sheet_of(unit("swing-bridge-ram")))
    job.walk(until=lambda task: task.key == "find:gland-backup")
    job.do(found("gland-backup", present=False, note="nothing in the groove"))
    to_causes(job)
    task = job.task("cause:gland-ring")
    assert task.asks[0].choices[0].key == "missing_backup"
    job.do(
        {
            "kind": "cause_decided",
            "element": "gland-ring",
            "cause": "missing_backup",
            "corrections": ["backup_low_side"],
        }
    )
    job.walk(until=lambda task: task.key == "sign")
    # It is made good by the backup going in, not by the ring.
    assert decided_causes(job.case())[0].corrected == ("Fit the backup ring on the low-pressure side",)


def test_a_second_look_turns_nothing_round() -> None:
    job = ram()
    job.do(found("rod-lip", faced="outside", signs="none"))
    job.do(found("rod-lip", faced="rod_side", signs="none"))
    assert keys(job, "cause:") == ["cause:rod-lip"]


def test_a_ring_of_another_size_speaks_by_itself() -> None:
    job = Job(sheet_of(plug()))
    job.walk(until=lambda task: task.key == "find:ring")
    # A section of 1.78 mm where one of 2.5 mm belongs, and a reading of the right one.
    job.do(found("ring", signs="flat_both_sides", section="1.78 mm"))
    told = {choice.key: str(choice.sign) for choice in job.task("cause:ring").asks[0].choices}
    assert "its section was 1.78 mm, 2.50 mm belongs here" in told["too_small"]
    job.do(found("ring", signs="flat_both_sides", section="2.45 mm"))
    assert not any("belongs here" in str(choice.sign) for choice in job.task("cause:ring").asks[0].choices)


def test_what_is_known_of_a_place_comes_from_sheet_and_intake() -> None:
    job = Job(
        sheet_of(plug(service__temperature=["-10 °C", "95 °C"], stations__0__seats__0__elements__0__compound="NBR"))
    )
    known = circumstances_of(job.case(), job.resolved.elements["ring"])
    assert known.temperature == 95.0
    assert known.compound is not None
    assert known.compound.name == "NBR"
    assert known.medium == "mineral_hydraulic_oil"
    assert known.gas is False
    # 100 bar on its oil side.
    assert known.pressure == pytest.approx(10.0)
    assert known.motion == "static"
    # A 16 x 2.5 ring in 2.05 mm of depth: squeezed by 18 %.
    assert known.check is not None
    assert known.check.squeeze_pct.nominal == pytest.approx(18, abs=1)
    steam = Job(sheet_of(plug(service__medium="steam", service__fluids=None)))
    assert circumstances_of(steam.case(), steam.resolved.elements["ring"]).gas is None


def test_the_log_tells_the_cause_and_what_was_seen_in_words() -> None:
    job = scored(ram())
    job.do({"kind": "cause_decided", "element": "rod-lip", "cause": "dirt", "corrections": ["flush"], "reason": "grit"})

    def words(payload: Payload) -> str:
        return payload_words(job.resolved, payload)

    assert "scored along the stroke, embedded grit" in words(job.state.get(FOUND, "rod-lip"))
    told = words(job.state.get(CAUSES, "rod-lip"))
    assert told.startswith("rod lip seal: cause dirt in the fluid or from outside (")
    assert told.endswith("by the evidence); grit")


def test_what_was_on_it_is_asked_beside_and_speaks() -> None:
    job = ram()
    (ask,) = [one for one in job.task("find:rod-lip").asks if one.field == "lubricant"]
    assert ask.optional
    assert [choice.key for choice in ask.choices] == [
        "dry", "mineral_oil", "mineral_grease", "silicone_grease", "pfpe_grease",
    ]  # fmt: skip
    with pytest.raises(RuleError, match="a lubricant is not needed for a missing seal"):
        job.do({**found("rod-lip", lubricant="dry", note="gone"), "present": False})
    job.do(found("rod-lip", faced="rod_side", signs="worn_one_side", lubricant="dry"))
    case = job.case()
    assert circumstances_of(case, case.resolved.elements["rod-lip"]).lubricant is Lubricant.DRY
    to_causes(job)
    dry = next(one for one in job.task("cause:rod-lip").asks[0].choices if one.key == "dry_running")
    assert "it was dry as it came off" in str(dry.sign)


def test_a_cause_is_judged_when_the_surfaces_were_washed_and_read_and_nothing_is_chosen_before() -> None:
    job = ram()
    job.do(found("rod-lip", faced="rod_side", signs=["scored_along"]))
    cause = job.task("cause:rod-lip")
    assert cause.status is Status.BLOCKED
    assert "first wash and read the surfaces it ran on" in " ".join(cause.blocked_by)
    to_causes(job)
    order = [task.key for task in job.tasks()]
    for part in ("gland", "rod"):
        if f"measure:{part}" in order:
            assert job.task(f"measure:{part}").status is Status.DONE, part
    assert "measure:rod" in order
    asks = {ask.field: ask for ask in job.task("cause:rod-lip").asks}
    assert asks["cause"].proposed is None
    assert asks["corrections"].proposed is None
    # For scripts alone: the correction of the likeliest cause.
    assert asks["corrections"].right == [asks["corrections"].choices[0].key]
