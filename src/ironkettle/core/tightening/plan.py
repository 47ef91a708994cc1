"""The tightening plan: setting, passes with their order, preload, turns or back-off, findings."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ironkettle.core.findings import Finding, caution, info, reject
from ironkettle.core.tightening.pattern import Layout, tightening_sequence
from ironkettle.core.tightening.preload import NutFactor, Range, Thread, preload, proof_share
from ironkettle.core.tightening.setting import (
    Adapter,
    TorqueRange,
    Wrench,
    accuracy_needed,
    setting_within,
)

MAKER_BASIS = "the build sheet's figure; the maker's manual wins"
PROOF_LIMIT_PCT = 90.0


@dataclass(frozen=True, slots=True)
class ByTorque:
    """A range in N·m; a bare target has ``low == high`` and no tolerance is claimed."""

    range: TorqueRange


@dataclass(frozen=True, slots=True)
class ByTurns:
    """A fraction of a turn on a thread of this pitch. [turns, mm]"""

    turns: float
    pitch: float


@dataclass(frozen=True, slots=True)
class ToSlot:
    """Bottomed, then backed off to the nearest of n slots on a thread of this pitch. [-, mm]"""

    slots: int
    pitch: float


@dataclass(frozen=True, slots=True)
class ToStop:
    """Metal to metal, no figure."""


Spec = ByTorque | ByTurns | ToSlot | ToStop


@dataclass(frozen=True, slots=True)
class Fastener:
    """Thread with torque coefficient and proof stress [MPa]."""

    thread: Thread
    factor: NutFactor
    proof: float


@dataclass(frozen=True, slots=True)
class Pass:
    pct: float
    setting: float | None
    sequence: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class WrenchFit:
    fits: bool
    reason: str


@dataclass(frozen=True, slots=True)
class TorquePlan:
    """Torques in N·m, preload in kN, travel in mm, back-off in degrees; None where it does not apply."""

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
) -> TorquePlan:
    """Plan a group of fasteners.

    Parameters
    ----------
    spec : how tight. [N·m, turns, slots]
    layout, count : the pattern and how many. [-]
    passes_pct : shares of the final torque, each > 0 and <= 100, the last 100. [%]
    wrench, adapter : what it is done with. [N·m, mm, deg]
    soft_thread : aluminium, brass or plastic: never above the middle of the range.
    fastener : thread and strength, for the preload.

    Source: setting inside the range under the wrench's error; F = T/(K·d); travel = turns × pitch.
    """
    sequence = tightening_sequence(layout, count)
    if not isinstance(spec, ByTorque):
        return _without_torque(spec, sequence)
    findings: list[Finding] = []
    setting = _setting(spec.range, wrench, soft_thread, findings)
    scale = adapter.scale_setting(setting) if adapter else setting
    fit = None if wrench is None else _wrench_fit(wrench, scale, findings)
    load = share = None
    if fastener is not None:
        load = preload(setting, fastener.thread, fastener.factor)
        share = proof_share(load, fastener.thread, fastener.proof)
        findings += _proof_findings(share)
    passes = tuple(Pass(pct, setting * pct / 100, sequence) for pct in passes_pct)
    if len(passes) > 1:
        findings.append(
            info(
                "last-round", "after the last pass go round once more in order at full torque", "common flange practice"
            )
        )
    text = f"{setting:.1f} N·m at the fastener"
    if adapter is not None:
        text += f", {scale:.1f} N·m on the scale with the adapter"
    return TorquePlan(setting, scale, text, passes, fit, load, share, None, None, tuple(findings))


def _setting(torque: TorqueRange, wrench: Wrench | None, soft: bool, findings: list[Finding]) -> float:
    setting = torque.middle
    if wrench is None or torque.low == torque.high:
        if torque.low == torque.high:
            findings.append(info("no-range", "one figure without a range: set to it and note the reading", MAKER_BASIS))
        return setting
    held = setting_within(torque, wrench.accuracy_pct)
    if held is None:
        text = (
            f"a ±{wrench.accuracy_pct:g} % wrench cannot hold {torque.low:g} to {torque.high:g} N·m; "
            f"one of ±{accuracy_needed(torque):.1f} % or better can"
        )
        findings.append(reject("accuracy", text, "setting × (1 ± accuracy) must stay in the range"))
        return setting
    if soft and held > torque.middle:
        text = "the setting would lie above the middle of the range, which a soft thread must not get"
        findings.append(caution("soft-thread", text, "soft threads: at or below the middle of the range"))
        return torque.middle
    return held


def _wrench_fit(wrench: Wrench, scale: float, findings: list[Finding]) -> WrenchFit:
    low, high = wrench.usable_low, wrench.high
    if low <= scale <= high:
        return WrenchFit(True, f"{scale:.1f} N·m lies in its trusted range {low:g} to {high:g} N·m")
    reason = f"{scale:.1f} N·m is outside its trusted range {low:g} to {high:g} N·m"
    findings.append(reject("wrench-range", f"this wrench does not reach: {reason}", "20 to 100 % of the scale"))
    return WrenchFit(False, reason)


def _proof_findings(share: Range) -> list[Finding]:
    if share.nominal > PROOF_LIMIT_PCT:
        text = f"preload would be {share.nominal:.0f} % of proof load; over {PROOF_LIMIT_PCT:g} % is refused"
        return [reject("proof", text, "share of proof load on the stress area")]
    if share.high > PROOF_LIMIT_PCT:
        text = f"with a slippery thread preload can reach {share.high:.0f} % of proof load"
        return [caution("proof-high", text, "share of proof load over the range of K")]
    return []


def _without_torque(spec: ByTurns | ToSlot | ToStop, sequence: tuple[int, ...]) -> TorquePlan:
    passes = (Pass(100.0, None, sequence),)
    if isinstance(spec, ByTurns):
        travel = spec.turns * spec.pitch
        text = f"{spec.turns:g} turn from contact, {travel:.2f} mm of travel; draw a line across nut and body first"
        return TorquePlan(None, None, text, passes, None, None, None, travel, None, ())
    if isinstance(spec, ToSlot):
        degrees = 360 / spec.slots
        gap = spec.pitch / spec.slots
        text = f"bottom, then back off to the nearest of {spec.slots} slots: at most {degrees:.0f}°, which opens {gap:.2f} mm"
        return TorquePlan(None, None, text, passes, None, None, None, gap, degrees, ())
    return TorquePlan(None, None, "metal to metal, no figure: feel it stop", passes, None, None, None, None, None, ())
