"""The kit counted, new parts fitted: what waits, what is refused, what asks back."""

from __future__ import annotations

from typing import Any

import pytest

from ironkettle.core.base.errors import RefusedError, RuleError
from ironkettle.core.jobs import compose_statement
from ironkettle.core.jobs.kinds.fitting import FITTED
from ironkettle.core.jobs.kinds.release import RELEASED
from ironkettle.core.jobs.registry import payload_words
from ironkettle.core.jobs.task import Status
from tests.bench import Job, filled
from tests.core.jobs.at_work import at, counted, fields, plugged


def test_nothing_new_is_fitted_before_the_kit_is_counted() -> None:
    job = at("header-tank-valve", "count:FN-K-HT15")
    with pytest.raises(RefusedError, match="count the kit FN-K-HT15"):
        job.do({"kind": "element_fitted", "element": "end-disc"})


def test_a_line_counted_short_is_ordered_and_fitted_when_it_has_come() -> None:
    job = at("dosing-check-valve", "count:FN-K-CV14")
    job.do(counted(job, **{"k-guide": 1}))
    assert job.task("order:k-guide").status is Status.NEXT
    assert job.task("receive:k-guide").status is Status.BLOCKED
    with pytest.raises(RefusedError, match="guide ring: 1 short"):
        job.do({"kind": "element_fitted", "element": "guide-ring-1"})
    assert "guide ring has not come yet" in " ".join(job.task("fit:guide-ring-1").blocked_by)
    with pytest.raises(RuleError, match="only 1 were missing"):
        job.do({"kind": "part_arrived", "what": "k-guide", "counted": 2})
    with pytest.raises(RuleError, match="not a missing item"):
        job.do({"kind": "part_arrived", "what": "k-disc", "counted": 1})
    job.do({"kind": "part_ordered", "what": "k-guide"})
    job.do({"kind": "part_arrived", "what": "k-guide", "counted": 1})
    assert job.task("receive:k-guide").status is Status.DONE
    job.walk()
    assert job.state.has(RELEASED, "released")


def test_what_never_came_is_not_fitted_though_its_arrival_is_passed_over() -> None:
    job = at("dosing-check-valve", "count:FN-K-CV14")
    job.do(counted(job, **{"k-guide": 1}))
    job.do({"kind": "task_skipped", "task": "receive:k-guide", "reason": "the maker has none left"})
    with pytest.raises(RefusedError, match="1 short"):
        job.do({"kind": "element_fitted", "element": "guide-ring-1"})
    for key in ("fit:guide-ring-1", "fit:guide-ring-2", "order:k-guide"):
        job.do({"kind": "task_skipped", "task": key, "reason": "the maker has none left"})
    job.walk()
    assert job.state.has(RELEASED, "released")


def test_a_count_passed_over_does_not_forbid_to_fit() -> None:
    job = at("header-tank-valve", "count:FN-K-HT15")
    job.do({"kind": "task_skipped", "task": "count:FN-K-HT15", "reason": "loose seals from the drawer"})
    job.walk()
    assert set(job.state.book(FITTED)) == {"end-disc", "plunger-ring"}


def test_a_count_names_every_line_once() -> None:
    job = at("dosing-check-valve", "count:FN-K-CV14")
    payload = counted(job)
    with pytest.raises(RuleError, match="not counted: body ring"):
        job.do(payload | {"lines": payload["lines"][1:]})
    with pytest.raises(RuleError, match="is not a kit of this build sheet"):
        job.do(payload | {"kit": "FN-K-0"})
    payload["lines"][0]["used"] = False
    with pytest.raises(RuleError, match="has no alternative"):
        job.do(payload)


def test_a_reversed_one_is_refused_at_fitting() -> None:
    job = at("swing-bridge-ram", "fit:rod-lip")
    with pytest.raises(RuleError, match="reversed: the rod lip seal goes with its open lips towards the") as caught:
        job.do({"kind": "element_fitted", "element": "rod-lip", "faces": "outside"})
    assert fields(caught) == ["faces"]
    assert caught.value.code == "reversed"
    # It says why; which tile is right it does not say.
    assert "rod side" not in str(caught.value)
    assert caught.value.faults[0].accepts == ()
    with pytest.raises(RuleError, match="say which side: open lips"):
        job.do({"kind": "element_fitted", "element": "rod-lip"})
    with pytest.raises(RuleError, match="not a zone next to this station"):
        job.do({"kind": "element_fitted", "element": "rod-lip", "faces": "cap_side"})
    ask = job.task("fit:rod-lip").asks[0]
    assert [choice.key for choice in ask.choices] == list(job.resolved.elements["rod-lip"].station.between)
    assert ask.right == "rod_side"
    with pytest.raises(RuleError, match="what is the rod lip seal fitted with") as caught:
        job.do({"kind": "element_fitted", "element": "rod-lip", "faces": "rod_side"})
    assert fields(caught) == ["lubricant"]
    job.do({"kind": "element_fitted", "element": "rod-lip", "faces": "rod_side", "lubricant": "dry"})
    assert "rod lip seal fitted, open lips to rod side" in payload_words(job.resolved, job.entries[-1][0])


def test_one_use_is_new_and_what_is_kept_is_kept() -> None:
    job = at("swing-bridge-ram", "fit:rod-lip")
    with pytest.raises(RuleError, match="for one use only"):
        job.do({"kind": "element_fitted", "element": "rod-lip", "faces": "rod_side", "reused": True})
    assert job.task("fit:rod-lip").entry["reused"] is False
    # Nothing is proposed as kept: whoever has it in hand says so.
    (kept, source) = [ask for ask in job.task("fit:rod-band").asks if ask.field in {"reused", "source"}]
    assert (kept.proposed, kept.optional, kept.right) == (None, False, True)
    assert source.optional
    job.walk(until=lambda task: task.key == "fit:rod-band")
    with pytest.raises(RuleError, match="“Is the old rod wear band fitted again\\?” is not answered") as caught:
        job.do({"kind": "element_fitted", "element": "rod-band"})
    assert fields(caught) == ["reused"]
    new = {"kind": "element_fitted", "element": "rod-band", "reused": False}
    with pytest.raises(RuleError, match="the rod wear band is in no kit: where is the new one from") as caught:
        job.do(new)
    assert fields(caught) == ["source"]
    job.do({**new, "source": "stock", "lubricant": "dry"})
    assert "fitted, new from stock, dry" in payload_words(job.resolved, job.entries[-1][0])


def band_found(**found: Any) -> Job:
    """The latch ram with its rod wear band found so, at the fit of it; skipped where nothing is given."""
    job = at("swing-bridge-ram", "find:rod-band")
    if found:
        job.do({"kind": "element_found", "element": "rod-band", **found})
    else:
        job.do({"kind": "task_skipped", "task": "find:rod-band", "reason": "came in pieces"})
    job.walk(until=lambda task: task.key == "fit:rod-band")
    return job


@pytest.mark.parametrize(
    ("found", "why"),
    [
        ({"present": False, "note": "groove empty"}, "was found missing: there is no old one"),
        ({"present": True, "signs": ["burnt"]}, "was found with a sign on it"),
        ({}, "nobody has looked at the old rod wear band"),
    ],
)
def test_what_is_gone_spoiled_or_unseen_is_not_fitted_again(found: dict[str, Any], why: str) -> None:
    job = band_found(**found)
    fit = job.task("fit:rod-band")
    with pytest.raises(RuleError, match=why):
        job.do(filled(fit, reused=True))
    assert next(ask for ask in fit.asks if ask.field == "reused").right is False


def test_a_second_look_does_not_wipe_a_sign_out() -> None:
    job = band_found(present=True, signs="burnt")
    job.do({"kind": "element_found", "element": "rod-band", "present": True, "signs": "none"})
    with pytest.raises(RuleError, match="was found with a sign on it"):
        job.do(filled(job.task("fit:rod-band"), reused=True))


def test_a_reason_for_the_old_one_says_nothing_of_its_lubricant() -> None:
    job = band_found(present=True, signs="worn_evenly")
    job.do(filled(job.task("fit:rod-band"), reused=True, against="within its limit, measured 2.4 mm"))
    told = compose_statement(job.case(), job.tasks())
    assert not any("against the build sheet" in line for line in told)


def test_a_spoiled_one_is_kept_for_a_reason_that_stands_against_the_release() -> None:
    job = band_found(present=True, signs="worn_evenly")
    with pytest.raises(RuleError, match="only a written reason"):
        job.do(filled(job.task("fit:rod-band"), reused=True, against="ok"))
    job.do(filled(job.task("fit:rod-band"), reused=True, against="within its limit, measured 2.4 mm"))
    told = compose_statement(job.case(), job.tasks())
    assert any("the old one is kept, found with a sign on it" in line and "measured 2.4 mm" in line for line in told)


@pytest.mark.parametrize(
    ("key", "task", "may"),
    [
        ("escape-set-regulator", "fit:orifice-ring", False),  # a ring, and breathed from
        ("swing-bridge-ram", "fit:rod-lip", False),  # a lip
        ("diver-compressor", "fit:lower-gasket", True),  # a gasket whose sheet names it
        ("ballast-globe-valve", "fit:upper-gasket", True),
    ],
)
def test_a_sealant_lies_on_flat_gaskets_alone(key: str, task: str, may: bool) -> None:
    job = at(key, task)
    fit = job.task(task)
    offered = next(ask for ask in fit.asks if ask.field == "lubricant").choices
    assert ("gasket_sealant" in {choice.key for choice in offered}) is may
    if may:
        job.do(filled(fit, lubricant="jointing compound"))
        return
    with pytest.raises(RuleError, match="flat gaskets only"):
        job.do(filled(fit, lubricant="jointing compound"))


def test_what_must_never_meet_it_is_refused_but_for_a_reason_in_writing() -> None:
    job = at("dosing-check-valve", "fit:disc-seal")
    for word in ("mineral grease", "Lithium grease", "petroleum jelly", "engine oil", "hydraulic_oil"):
        with pytest.raises(RuleError, match="never mineral: it swells EPDM") as caught:
            job.do({"kind": "element_fitted", "element": "disc-seal", "lubricant": word})
        assert caught.value.code == "wrong-lubricant"
        assert "glycerine" in caught.value.faults[0].accepts
        assert "lithium_grease" not in caught.value.faults[0].accepts
    for word in ("grease", "olive oil", "NLGI 2"):
        with pytest.raises(RuleError, match="not in the list of lubricants"):
            job.do({"kind": "element_fitted", "element": "disc-seal", "lubricant": word, "against": "none other here"})
    job.do(
        {
            "kind": "element_fitted",
            "element": "disc-seal",
            "lubricant": "mineral grease",
            "against": "maker's letter of May",
        }
    )
    assert "overruled: maker's letter" in payload_words(job.resolved, job.entries[-1][0])


def test_a_size_left_to_measuring_is_chosen_before_it_is_fitted() -> None:
    job = at("swing-bridge-ram", "identify:gland-ring")
    first = job.task("identify:gland-ring").asks[0].choices[0]
    with pytest.raises(RuleError, match="999"):
        job.do({"kind": "size_chosen", "element": "gland-ring", "size": "AS568 999"})
    job.do({"kind": "size_chosen", "element": "gland-ring", "size": first.key})
    assert first.key in job.task("fit:gland-ring").text
    # The best that fits is offered first, and a groove that it fits says so.
    assert first.sign == "good"


def test_a_given_depth_and_offset_are_asked_for() -> None:
    changes: dict[str, Any] = {
        "stations__0__seats__0__elements__0__depth_below": "1.5 mm",
        "stations__0__seats__0__elements__0__offset": "short side down",
        "stations__0__seats__0__elements__0__marks": ["dot up"],
    }
    plain = plugged()
    plain.walk(until=lambda one: one.key == "find:ring")
    with pytest.raises(RuleError, match="nothing of the"):
        plain.do({**filled(plain.task("find:ring")), "offset": "as_must"})
    job = plugged(**changes)
    job.walk(until=lambda one: one.key == "fit:ring")
    fit = {"kind": "element_fitted", "element": "ring", "lubricant": "dry"}
    with pytest.raises(RuleError, match="short side down"):
        job.do(fit)
    with pytest.raises(RuleError, match="off centre the wrong way"):
        job.do(fit | {"offset": "otherwise"})
    with pytest.raises(RuleError, match=r"1.5 mm is wanted"):
        job.do(fit | {"offset": "as_must"})
    with pytest.raises(RuleError, match=r"2 mm is not 1\.5 mm"):
        job.do(fit | {"offset": "as_must", "depth_below": "2 mm", "marks": True})
    with pytest.raises(RuleError, match="dot up"):
        job.do(fit | {"offset": "as_must", "depth_below": "1.5 mm"})
    for good in ("1.2 mm", "1.8 mm"):
        again = plugged(**changes)
        again.walk(until=lambda one: one.key == "fit:ring")
        again.do(fit | {"offset": "as_must", "depth_below": good, "marks": True})


def test_what_does_not_move_freely_goes_back_to_the_step_that_put_it_on() -> None:
    job = at("swing-bridge-ram", "step:free-stroke")
    with pytest.raises(RuleError, match="moves the full stroke"):
        job.do({"kind": "step_done", "step": "free-stroke"})
    with pytest.raises(RuleError, match="say how it moved"):
        job.do({"kind": "step_done", "step": "free-stroke", "free": False})
    job.do({"kind": "step_done", "step": "free-stroke", "free": False, "note": "catches at half stroke"})
    assert job.task("step:free-stroke").status is Status.BLOCKED
    # The last step before it that put a part on.
    assert job.next().key == "step:wire-in"  # type: ignore[union-attr]
    job.walk()
    assert job.state.has(RELEASED, "released")


def test_the_reason_with_a_refusal_is_that_of_the_step_that_blocks() -> None:
    job = at("swing-bridge-ram", "step:gland-on")
    with pytest.raises(RefusedError, match="Gland with its seals over the rod"):
        job.do(filled(job.task("fit:rod-spigot-ring")))
