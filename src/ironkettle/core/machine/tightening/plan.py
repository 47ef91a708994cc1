"""The tightening plan: setting, passes with their order, preload, turns or back-off, findings."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ironkettle.core.base.findings import Finding, caution, info, reject
from ironkettle.core.base.quantities import written_turns
from ironkettle.core.machine.tightening.locking import Locking, locking_findings
from ironkettle.core.machine.tightening.passes import Pass, Turn, settings_of, turns_of, unreached
from ironkettle.core.machine.tightening.pattern import Layout
from ironkettle.core.machine.tightening.preload import (
    BoltStrength,
    NutFactor,
    Range,
    find_factor,
    find_proof,
    preload,
    proof_share,
)
from ironkettle.core.machine.tightening.setting import (
    BARE_TARGET_PCT,
    Adapter,
    TorqueRange,
    Wrench,
    accuracy_needed,
    setting_within,
    soft_setting_within,
    torque_words,
)
from ironkettle.core.machine.tightening.stripping import Tapped, engagement_needed, strip_load
from ironkettle.core.machine.tightening.threads import Thread, find_thread

MAKER_BASIS = "the build sheet's figure; the maker's manual wins"
PROOF_BASIS = "F = T/(K·d) against proof stress × stress area"
STRIP_BASIS = "F = T/(K·d) against the thread's shear area; the maker's manual wins"
PROOF_LIMIT_PCT = 90.0


@dataclass(frozen=True, slots=True)
class ByTorque:
    """A range in N·m; a bare target has ``low == high`` and no tolerance is claimed."""

    range: TorqueRange


@dataclass(frozen=True, slots=True)
class ByTurns:
    """A fraction of a turn on a thread of this pitch, on from contact, or back from the bottom. [turns, mm]"""

    turns: float
    pitch: float
    from_bottom: bool = False


@dataclass(frozen=True, slots=True)
class ToSlot:
    """To the nearest of n slots on a thread of this pitch: back from the bottom, or on from where it is tight. [-, mm]"""

    slots: int
    pitch: float
    from_bottom: bool = True


@dataclass(frozen=True, slots=True)
class ToStop:
    """Metal to metal, no figure."""


Spec = ByTorque | ByTurns | ToSlot | ToStop


@dataclass(frozen=True)
class FastenerTables:
    """Threads, torque coefficients, proof stresses and tapped materials the tightening rules read."""

    threads: tuple[Thread, ...]
    nut_factors: tuple[NutFactor, ...]
    strengths: tuple[BoltStrength, ...]
    tapped: tuple[Tapped, ...]


@dataclass(frozen=True, slots=True)
class Fastener:
    """Thread with torque coefficient and proof stress [MPa]; what it is tapped into, and how deep it is in [mm]."""

    thread: Thread
    factor: NutFactor
    proof: float
    tapped: Tapped | None = None
    engaged: float | None = None


# What a thread is taken to be where nobody says.
_USUAL_CONDITION = "light oil"


def fastener_of(thread: str, grade: str, condition: str | None, tables: FastenerTables) -> Fastener:
    """A thread with its torque coefficient and proof stress by the tables; lightly oiled where no condition is given. [mm, MPa]

    Raises RuleError naming the field for a thread, a grade or a condition that no table has.
    Source: reference/tables/threads.csv, bolt_strength.csv (ISO 898-1, ISO 3506-1, SAE J429), nut_factor.csv.
    """
    found = find_thread(thread, tables.threads, "thread")
    factor = find_factor(condition or _USUAL_CONDITION, tables.nut_factors, "condition")
    return Fastener(found, factor, find_proof(grade, found.major_diameter, tables.strengths, "grade"))


@dataclass(frozen=True, slots=True)
class WrenchFit:
    fits: bool
    reason: str


@dataclass(frozen=True, slots=True)
class TorquePlan:
    """Torques in N·m, preload in kN, travel in mm, back-off in degrees; None where it does not apply.

    ``preload`` is that of the setting over the range of K; ``proof_pct.high`` is worked out from the
    highest torque that can happen.
    """

    setting: float | None
    wrench_setting: float | None
    setting_text: str
    passes: tuple[Pass, ...]
    wrench: WrenchFit | None
    preload: Range | None
    proof_pct: Range | None
    travel: float | None
    back_off_deg_max: float | None
    findings: tuple[Finding, ...]


def plan_tightening(
    spec: Spec,
    *,
    layout: Layout = Layout.SINGLE,
    count: int = 1,
    passes_pct: Sequence[float] = (100.0,),
    wrench: Wrench | None = None,
    adapter: Adapter | None = None,
    soft_thread: bool = False,
    fastener: Fastener | None = None,
    locking: Iterable[Locking] = (),
    top: bool = False,
    turn: int | None = None,
) -> TorquePlan:
    """Plan a group of fasteners.

    Parameters
    ----------
    spec : how tight. [N·m, turns, slots]
    layout, count : the pattern and how many, 1 to 64. [-]
    passes_pct : shares of the final torque, rising, each > 0 and <= 100, the last 100. [%]
    wrench, adapter : what it is done with. [N·m, mm, deg]
    soft_thread : aluminium, brass or plastic: the torque stays at or below the middle of the range.
    fastener : thread and strength, for the preload; what it is tapped into, for stripping.
    locking : how it is kept from turning.
    top : whether the shop tightens to the top of the range; never in a soft thread.
    turn : the pass in hand, from 1 up to the last, which the wrench must reach; without it the last. [-]

    Raises RuleError for a count outside, or an adapter that points back past the drive.
    Source: setting inside the range under the wrench's error; F = T/(K·d); travel = turns × pitch.
    """
    turns = turns_of(layout, count, passes_pct)
    locked = locking_findings(locking)
    if not isinstance(spec, ByTorque):
        return _without_torque(spec, turns, locked)
    soft = soft_thread or (fastener is not None and fastener.tapped is not None and fastener.tapped.soft)
    findings: list[Finding] = []
    setting = _setting(spec.range, wrench, soft, top, findings)
    passes = settings_of(turns, setting, wrench, adapter)
    scale = passes[-1].wrench_setting or setting
    in_hand = passes[-1 if turn is None else turn - 1].wrench_setting or setting
    fit = None if wrench is None else _wrench_fit(wrench, in_hand, findings)
    if wrench is not None:
        findings += unreached(passes, wrench)
    load = share = None
    if fastener is not None:
        load = preload(setting, fastener.thread, fastener.factor)
        highest = _highest(spec.range, setting, wrench)
        most = preload(highest, fastener.thread, fastener.factor)
        share = proof_share(Range(load.low, load.nominal, most.high), fastener.thread, fastener.proof)
        findings += over_proof(highest, fastener)
        findings += _strip_findings(fastener, most.high)
    if soft and (fastener is None or fastener.engaged is None or fastener.tapped is None):
        text = "whether a soft thread strips first is not checked: give its material and the engaged length"
        findings.append(caution("strip-unchecked", text, STRIP_BASIS))
    text = f"{torque_words(setting)} at the fastener"
    if adapter is not None:
        text += f", {torque_words(scale)} on the scale with the adapter"
    return TorquePlan(setting, scale, text, passes, fit, load, share, None, None, (*findings, *locked))


def _setting(torque: TorqueRange, wrench: Wrench | None, soft: bool, top: bool, findings: list[Finding]) -> float:
    if torque.bare:
        share = BARE_TARGET_PCT if wrench is None else wrench.accuracy_pct
        text = f"one figure without a range: set to it; a reading within {share:g} % of it counts as tight"
        findings.append(info("no-range", text, MAKER_BASIS))
        return torque.middle
    if wrench is None:
        return torque.middle
    share = wrench.accuracy_pct
    held = soft_setting_within(torque, share) if soft else setting_within(torque, share, top=top)
    if held is not None:
        return held
    text = (
        f"a ±{wrench.accuracy_pct:g} % wrench cannot hold {torque.words}; "
        f"one of ±{accuracy_needed(torque):.1f} % or better can"
    )
    findings.append(reject("accuracy", text, "setting × (1 ± accuracy) must stay in the range"))
    return torque.middle


def _wrench_fit(wrench: Wrench, scale: float, findings: list[Finding]) -> WrenchFit:
    trusted = f"{wrench.usable_low:g} to {wrench.high:g} N·m"
    if wrench.reaches(scale):
        return WrenchFit(True, f"{torque_words(scale)} lies in its trusted range {trusted}")
    reason = f"{torque_words(scale)} is outside its trusted range {trusted}"
    # Below a fifth of its end the scale reads, though nobody vouches for it; off the scale it does not.
    on_scale = wrench.low <= scale <= wrench.high
    say, text = (
        (caution, "this wrench is read low on its scale") if on_scale else (reject, "this wrench does not reach")
    )
    findings.append(say("wrench-range", f"{text}: {reason}", "ISO 6789: 20 to 100 % of the scale"))
    return WrenchFit(False, reason)


def _highest(torque: TorqueRange, setting: float, wrench: Wrench | None) -> float:
    """The highest torque that can happen: the upper limit, or the setting with all of the wrench's error. [N·m]"""
    unknown = BARE_TARGET_PCT if torque.bare else 0.0
    share = unknown if wrench is None else wrench.accuracy_pct
    return max(torque.high, setting * (1 + share / 100))


def over_proof(torque: float, fastener: Fastener) -> tuple[Finding, ...]:
    """Why a torque is too much for a thread, on its most slippery day; nothing where it is not.

    Parameters: torque > 0, the highest that can happen [N·m].
    Source: F = T/(K·d) against proof stress × stress area (ISO 898-1); 90 % of the proof load is a shop's limit, no published source.
    """
    share = proof_share(preload(torque, fastener.thread, fastener.factor), fastener.thread, fastener.proof)
    if share.high <= PROOF_LIMIT_PCT:
        return ()
    text = (
        f"at {torque:.3g} N·m, the highest torque that can happen, preload on the most slippery thread reaches {share.high:.0f} % of "
        f"proof load ({share.nominal:.0f} % on a usual thread); over {PROOF_LIMIT_PCT:g} % is refused. Take a "
        "lower figure, a narrower range, a stronger class, or a condition that is known better"
    )
    return (reject("proof", text, PROOF_BASIS),)


def _strip_findings(fastener: Fastener, load: float) -> list[Finding]:
    if fastener.tapped is None or fastener.engaged is None:
        return []
    strips = strip_load(fastener.thread, fastener.engaged, fastener.tapped)
    share = 100 * load / strips
    if share <= PROOF_LIMIT_PCT:
        return []
    needed = engagement_needed(load, fastener.thread, fastener.tapped, PROOF_LIMIT_PCT / 100)
    text = (
        f"the thread in {fastener.tapped.material} may strip: {load:.1f} kN can happen and {strips:.1f} kN strip it at "
        f"{fastener.engaged:g} mm; {needed:.1f} mm engaged, or a thread insert, would hold"
    )
    return [reject("strip", text, STRIP_BASIS)]


def _without_torque(spec: ByTurns | ToSlot | ToStop, turns: Sequence[Turn], locked: Sequence[Finding]) -> TorquePlan:
    passes = (Pass(Turn(100.0, False, turns[0].sequence), None, None, None),)
    travel = back = None
    if isinstance(spec, ByTurns):
        travel = spec.turns * spec.pitch
        way = "back from the bottom" if spec.from_bottom else "on from contact"
        turned = f"{written_turns(spec.turns)} {'turn' if spec.turns <= 1 else 'turns'}"
        text = f"{turned} {way}, {travel:.2f} mm of travel: count it by a flat or a pencil stroke"
    elif isinstance(spec, ToSlot):
        degrees, travel = 360 / spec.slots, spec.pitch / spec.slots
        if spec.from_bottom:
            back = degrees
            text = f"bottom, then back off to the nearest of {spec.slots} slots: at most {degrees:.0f}°, which opens {travel:.2f} mm"
        else:
            text = (
                f"tighten, then on to the next of {spec.slots} slots, never back: at most {degrees:.0f}° more, "
                f"{travel:.2f} mm of travel"
            )
    else:
        text = "metal to metal, no figure: feel it stop"
    return TorquePlan(None, None, text, passes, None, None, None, travel, back, tuple(locked))
