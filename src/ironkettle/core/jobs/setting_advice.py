"""The next turn of an adjuster in a job: to the sheet's figure, or by the sheet's routine."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ironkettle.core.base.errors import RuleError, fault
from ironkettle.core.base.quantities import Unit
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.kinds.setting import Aim, TurnRead, aim_of
from ironkettle.core.machine.adjusters import (
    Advice,
    Reading,
    Seen,
    Sense,
    Target,
    advise,
    advise_contact,
    advise_edge,
    advise_preset,
)
from ironkettle.core.machine.tests import any_of
from ironkettle.core.machine.tightening import find_thread
from ironkettle.core.sheets.document.fastening import ContactSetting, EdgeSetting, PresetSetting, SettingSpec


@dataclass(frozen=True, slots=True)
class Advised:
    """The advice, in which ``unit`` its figures are read, the pitch of the adjuster [mm], and what was read so far [base unit]."""

    advice: Advice
    unit: Unit | None
    pitch: float | None
    values: tuple[float, ...] = ()


def advise_setting(case: Case, spec: SettingSpec, readings: Sequence[TurnRead]) -> Advised:
    """What to turn next after these readings.

    Parameters: readings : where the adjuster stood, clockwise positive, 1 or more of them [turns], with what was read or seen there.
    Raises RuleError naming the field for a reading that lacks its figure or its sign, and where nothing can be worked out.
    Source: the routines of ``machine.adjusters``.
    """
    pitch = _pitch(case, spec)
    aim = aim_of(spec)
    if isinstance(spec, PresetSetting):
        preset = spec.preset
        return Advised(advise_preset(preset.bottom, preset.turns, preset.tolerance, _seen(readings)), None, pitch)
    if isinstance(spec, EdgeSetting):
        edge = spec.edge
        return Advised(advise_edge(edge.open, edge.close_plus_deg, edge.tolerance_deg, _seen(readings)), None, pitch)
    if isinstance(spec, ContactSetting):
        return Advised(advise_contact("clockwise", _seen(readings)), None, pitch)
    if aim is None or spec.adjuster is None:
        raise fault("readings", f"{spec.name} is set by eye: there is nothing to work out")
    read = _read(aim, readings)
    target = Target(
        aim.nominal, aim.nominal - aim.low, aim.high - aim.nominal, Sense(spec.adjuster.sense), aim.floor, aim.ceiling
    )
    return Advised(advise(target, read), aim.unit, pitch, tuple(reading.value for reading in read))


def _seen(readings: Sequence[TurnRead]) -> list[Seen]:
    for place, read in enumerate(readings):
        if read.sign is None:
            raise fault(f"readings.{place}.sign", "was the sign there?", "yes", "no")
    return [Seen(reading.turns, bool(reading.sign)) for reading in readings]


def _read(aim: Aim, readings: Sequence[TurnRead]) -> list[Reading]:
    found = []
    for place, reading in enumerate(readings):
        if reading.value is None:
            raise fault(f"readings.{place}.value", "what was read?", f"5 {aim.unit.symbol}")
        found.append(
            Reading(reading.turns, any_of(reading.value, [aim.unit.dimension], f"readings.{place}.value").value)
        )
    return found


def _pitch(case: Case, spec: SettingSpec) -> float | None:
    """The pitch of the adjuster's thread; None where its words name none. [mm]"""
    if spec.adjuster is None or not spec.adjuster.thread:
        return None
    try:
        return find_thread(spec.adjuster.thread, case.tables.fasteners.threads, "thread").pitch
    except RuleError:
        return None


__all__ = ["Advised", "advise_setting"]
