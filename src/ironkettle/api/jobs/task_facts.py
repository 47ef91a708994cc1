"""What the screen of a kind of move is handed beside its asks: torque plan, hold, trial, setting, groove."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from ironkettle.api.machine.tightening import FastenerBody, PatternBody, SpecBody, TorquePlanBody
from ironkettle.api.sealing.grooves import GrooveBody
from ironkettle.core.base.errors import RuleError
from ironkettle.core.base.quantities import OFFERED, find_unit, from_base, scale_and_offset, show
from ironkettle.core.jobs import Case, Task
from ironkettle.core.jobs.kinds.setting import Aim, aim_of, setting_words
from ironkettle.core.jobs.phases import told_group, turns_between
from ironkettle.core.machine.tightening import Layout, find_thread
from ironkettle.core.sheets.document.facts import gland_of
from ironkettle.core.sheets.document.fastening import Phase, PhaseTo, SettingSpec
from ironkettle.reference import threads


class TrialTestOut(BaseModel):
    """A test told in figures: what is wanted, how it is run, where to stand; ``on_gauge``: read on one of the shop's gauges.

    ``coarsest``: the widest step that gauge may have; ``amiss``: why its figures are told in words only.
    """

    test: str
    when: str
    word: str
    says: str
    steps: list[str]
    stand: str
    caution: str | None
    on_gauge: bool
    coarsest: str | None
    amiss: str | None


class DialOut(BaseModel):
    """How a nut is turned from its line, clockwise positive [deg]; ``slots`` it may come to; ``words`` for it."""

    turn_deg: float
    slots: int | None
    words: str


class SettingOut(BaseModel):
    """Something that is adjusted: ``advise``: the body of /api/settings/advise without its readings; None where it is by eye.

    ``low`` and ``high``, ``floor`` and ``ceiling`` of a figure in ``unit``; ``sign``: what is looked for on the way;
    ``corrects``: the tests it is made again for when they fail.
    """

    kind: str
    says: str
    advise: dict[str, Any] | None
    read: str | None
    unit: str | None
    low: float | None
    high: float | None
    floor: float | None
    ceiling: float | None
    sign: str | None
    corrects: list[str]


class HoldTestOut(BaseModel):
    """The figures of a pressure hold, as its plan is asked for; ``glass``: the port at which a measuring glass stands."""

    test: str
    when: str
    pressure: str
    volume: str
    medium: str
    bulk_modulus_gpa: float | None
    leak_limit: str
    glass: str | None


def pattern_of(case: Case, move: Task) -> PatternBody:
    """How the fasteners of a group lie."""
    group = case.resolved.groups[move.subject]
    return PatternBody(layout=group.layout if group.count > 1 else Layout.SINGLE, count=group.count)


def dial_of(case: Case, move: Task) -> DialOut | None:
    """The dial of a phase that is turned by eye: so far, to a slot, to its line."""
    phase = case.resolved.groups[move.subject].phases[int(move.entry["phase"])]
    back = -1 if phase.back else 1
    if phase.to is PhaseTo.TURNS:
        low, high = turns_between(phase)
        return DialOut(turn_deg=back * 180 * (low + high), slots=None, words="from the line, as drawn")
    if phase.to is PhaseTo.SLOT and phase.slots:
        way = "back" if phase.back else "on"
        return DialOut(turn_deg=back * 360 / phase.slots, slots=phase.slots, words=f"at most so far {way}")
    return DialOut(turn_deg=0, slots=None, words="line on line") if phase.to is PhaseTo.MARK else None


def torque_of(case: Case, move: Task) -> TorquePlanBody | None:
    """What the plan of a phase is asked with; None for one that has no figure: by hand, loosened, to a mark, to a gap."""
    group = told_group(case, move.subject)
    phase = group.phases[int(move.entry["phase"])]
    pattern = pattern_of(case, move)
    if phase.to is not PhaseTo.TORQUE:
        spec = _without_torque(phase, group.thread)
        return None if spec is None else TorquePlanBody(spec=spec, pattern=pattern)
    fastener = None
    if group.thread and group.grade:
        fastener = FastenerBody(thread=group.thread, grade=group.grade, condition=group.condition or "light oil")
    return TorquePlanBody(
        spec=SpecBody(min=phase.low, max=phase.high, target=phase.target, tolerance_pct=phase.tolerance_pct),
        pattern=pattern,
        passes_pct=list(phase.passes_pct),
        soft_thread=group.soft_thread,
        fastener=fastener,
        aim="top" if case.tables.house.holds("aim", 1) else "middle",
    )


def _without_torque(phase: Phase, thread: str | None) -> SpecBody | None:
    if phase.to is PhaseTo.TURNS:
        low, high = turns_between(phase)
        return SpecBody(turns=(low + high) / 2, thread=thread, from_bottom=phase.back) if thread else None
    if phase.to is PhaseTo.SLOT:
        return SpecBody(slots=phase.slots, thread=thread, from_bottom=phase.back) if thread else None
    return SpecBody(to_stop=True) if phase.to is PhaseTo.STOP else None


def hold_of(case: Case, move: Task) -> HoldTestOut | None:
    spec = next(one for one in case.resolved.sheet.tests if one.key == move.subject)
    if spec.key in case.resolved.told:
        return None
    return HoldTestOut(
        test=spec.key,
        when=str(move.entry["when"]),
        pressure=spec.pressure or "",
        volume=spec.volume or "",
        medium=spec.medium or "",
        bulk_modulus_gpa=spec.bulk_modulus_gpa,
        leak_limit=spec.leak_limit or "",
        glass=spec.glass,
    )


def trial_of(case: Case, move: Task) -> TrialTestOut | None:
    told = case.resolved.told.get(move.subject)
    if told is None:
        return None
    found = told.trial.plan(told.criteria, told.instrument(None))
    unit = None if found.dimension is None else find_unit(OFFERED[found.dimension][0])
    return TrialTestOut(
        test=move.subject,
        when=str(move.entry["when"]),
        word=told.trial.word,
        says=told.says,
        steps=list(found.steps),
        stand=found.stand,
        caution=found.caution,
        on_gauge=told.reads_pressure,
        coarsest=None if found.coarsest is None or unit is None else show(found.coarsest, unit),
        amiss=told.amiss,
    )


_SIGN = {"preset": "it stands at the bottom", "contact": "it touches"}


def setting_of(case: Case, move: Task) -> SettingOut:
    spec = next(one for one in case.resolved.sheet.settings if one.key == move.subject)
    aim = aim_of(spec)

    def shown_in(value: float | None) -> float | None:
        return None if value is None or aim is None else from_base(value, aim.unit)

    return SettingOut(
        kind=spec.kind,
        says=setting_words(spec),
        advise=_advised(spec, aim),
        read=None if aim is None else aim.unit.dimension.value,
        unit=None if aim is None else aim.unit.symbol,
        low=shown_in(aim.low) if aim else None,
        high=shown_in(aim.high) if aim else None,
        floor=shown_in(aim.floor) if aim else None,
        ceiling=shown_in(aim.ceiling) if aim else None,
        sign=spec.edge.sign if spec.edge else _SIGN.get(spec.kind),
        corrects=[test.key for test in case.resolved.sheet.tests if test.corrected_by == spec.key],
    )


def _pitch(thread: str) -> float | None:
    """The pitch of an adjuster's thread; None where its words name none. [mm]"""
    try:
        return find_thread(thread, threads(), "thread").pitch
    except RuleError:
        return None


def _advised(spec: SettingSpec, aim: Aim | None) -> dict[str, Any] | None:
    adjuster = spec.adjuster
    pitch = _pitch(adjuster.thread) if adjuster and adjuster.thread else None
    common = {"kind": spec.kind, "pitch": None if pitch is None else f"{pitch:g} mm"}
    if spec.preset:
        return {**common, **spec.preset.model_dump(include={"bottom", "turns", "tolerance"})}
    if spec.edge:
        return {**common, **spec.edge.model_dump(include={"open", "close_plus_deg", "tolerance_deg"})}
    if spec.contact:
        return common
    if aim is None or adjuster is None or spec.target is None:
        return None
    minus, plus = aim.nominal - aim.low, aim.high - aim.nominal
    scale, _ = scale_and_offset(aim.unit)
    value = f"{from_base(aim.nominal, aim.unit):.9g} {aim.unit.symbol} +{plus / scale:.9g}/-{minus / scale:.9g}"
    limits = {"floor": spec.target.floor, "ceiling": spec.target.ceiling}
    return {**common, "target": value, "sense": adjuster.sense, **limits}


def groove_of(case: Case, element: str) -> GrooveBody | None:
    """The groove of an element as the body of /api/glands/check, its ring left out; None for a seat that is no groove."""
    at = case.resolved.elements[element]
    gland = gland_of(case.resolved.sheet, at.station, at.seat)
    if gland is None:
        return None
    seat = at.seat
    return GrooveBody(
        seat=gland.seat,
        motion=gland.motion,
        medium=gland.medium,
        bore=seat.bore,
        rod=seat.rod,
        groove_diameter=seat.groove_diameter or "",
        groove_depth=seat.groove_depth,
        groove_width=seat.groove_width or "",
        diametral_clearance=seat.diametral_clearance,
        pressure=f"{gland.pressure or 0:g} MPa",
        pressure_direction=gland.pressure_direction,
        hardness_shore_a=seat.hardness_shore_a,
        backup_rings_fitted=min(gland.backup_rings_fitted, 2),
        pressed_from=gland.pressed_from,
    )
