"""Tightening: settings, adapters, patterns, preload, turns and slots."""

from ironkettle.core.tightening.pattern import Layout, tightening_sequence
from ironkettle.core.tightening.plan import (
    ByTorque,
    ByTurns,
    Fastener,
    Pass,
    Spec,
    TorquePlan,
    ToSlot,
    ToStop,
    plan_tightening,
)
from ironkettle.core.tightening.preload import (
    BoltStrength,
    FastenerTables,
    NutFactor,
    Range,
    Thread,
    find_factor,
    find_proof,
    find_thread,
    preload,
    proof_share,
    stress_area,
)
from ironkettle.core.tightening.setting import Adapter, TorqueRange, Wrench, setting_within

__all__ = [
    "Adapter",
    "BoltStrength",
    "ByTorque",
    "ByTurns",
    "Fastener",
    "FastenerTables",
    "Layout",
    "NutFactor",
    "Pass",
    "Range",
    "Spec",
    "Thread",
    "ToSlot",
    "ToStop",
    "TorquePlan",
    "TorqueRange",
    "Wrench",
    "find_factor",
    "find_proof",
    "find_thread",
    "plan_tightening",
    "preload",
    "proof_share",
    "setting_within",
    "stress_area",
    "tightening_sequence",
]
