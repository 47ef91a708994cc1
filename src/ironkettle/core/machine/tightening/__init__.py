"""Tightening: settings, adapters, patterns, passes, preload, stripping, locking, turns and slots."""

from ironkettle.core.machine.tightening.locking import LOCKING_WORD, Locking
from ironkettle.core.machine.tightening.passes import Pass, Turn, turns_of
from ironkettle.core.machine.tightening.pattern import Layout, tightening_sequence
from ironkettle.core.machine.tightening.plan import (
    ByTorque,
    ByTurns,
    Fastener,
    FastenerTables,
    Spec,
    TorquePlan,
    ToSlot,
    ToStop,
    fastener_of,
    over_proof,
    plan_tightening,
)
from ironkettle.core.machine.tightening.preload import (
    BoltStrength,
    NutFactor,
    Range,
    find_factor,
    find_proof,
    preload,
    proof_share,
    stress_area,
)
from ironkettle.core.machine.tightening.reading import Allowed, allowed_reading, told_of_reading
from ironkettle.core.machine.tightening.setting import (
    BARE_TARGET_PCT,
    Adapter,
    TorqueRange,
    Wrench,
    setting_within,
    soft_setting_within,
    torque_words,
)
from ironkettle.core.machine.tightening.stripping import Tapped, find_tapped, strip_load
from ironkettle.core.machine.tightening.threads import Thread, find_thread

__all__ = [
    "BARE_TARGET_PCT",
    "LOCKING_WORD",
    "Adapter",
    "Allowed",
    "BoltStrength",
    "ByTorque",
    "ByTurns",
    "Fastener",
    "FastenerTables",
    "Layout",
    "Locking",
    "NutFactor",
    "Pass",
    "Range",
    "Spec",
    "Tapped",
    "Thread",
    "ToSlot",
    "ToStop",
    "TorquePlan",
    "TorqueRange",
    "Turn",
    "Wrench",
    "allowed_reading",
    "fastener_of",
    "find_factor",
    "find_proof",
    "find_tapped",
    "find_thread",
    "over_proof",
    "plan_tightening",
    "preload",
    "proof_share",
    "setting_within",
    "soft_setting_within",
    "stress_area",
    "strip_load",
    "tightening_sequence",
    "told_of_reading",
    "torque_words",
    "turns_of",
]
