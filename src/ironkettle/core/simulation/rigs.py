"""What can be put on the simulated stand: each tells how it answers to the pump, and what the channels read of it."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Protocol

from ironkettle.core.simulation.flows import gap_flow, gas_flow, orifice_flow
from ironkettle.core.simulation.fluids import AIR_MPA, Liquid
from ironkettle.core.simulation.parts import DemandValve, Regulator, ReliefValve, Sliding
from ironkettle.core.simulation.poppet import Poppet
from ironkettle.core.simulation.stroker import Stroker
from ironkettle.core.simulation.volumes import GasVolume, LiquidVolume

_MM_PER_UM, _BAR_PER_MPA, _NEWTON_PER_MPA_MM2 = 0.001, 10.0, 1.0
_PA_PER_MPA = 1e6


@dataclass(frozen=True, slots=True)
class Dial:
    """A figure of a rig that can be set on the panel, with its unit, what it is at first, and its ends."""

    key: str
    says: str
    unit: str
    first: float
    high: float
    low: float = 0.0


@dataclass(slots=True)
class Reading:
    """What the channels would show without fault. [MPa gauge, °C, ml/min, mm, N]"""

    pressure: float = 0.0
    other_side: float = 0.0
    supply: float = 0.0
    temperature: float = 24.0
    flow: float = 0.0
    position: float = 0.0
    force: float = 0.0


class Rig(Protocol):
    """Something on the stand. ``dials`` tell what can be set; ``settings`` are what they are set to."""

    key: str
    says: str
    dials: tuple[Dial, ...]

    def advance(self, seconds: float, wanted: float, shut: bool, settings: Mapping[str, float]) -> None: ...

    def reading(self) -> Reading: ...


def governed(pump: float, lacks: float, softness: float, out: float, seconds: float) -> float:
    """What a pump gives so that a volume comes to what is wanted and not past it; negative: what is let down. [ml/min]

    Parameters: pump : above 0 [ml/min]; lacks : any [MPa]; softness : above 0 [ml/MPa]; out : any, what leaks [ml/min];
    seconds : above 0. Source: continuity.
    """
    near = 0.2
    wants = min(pump * abs(lacks) / near, abs(lacks) * softness * 60 / seconds)
    return max(-pump, min(math.copysign(wants, lacks) + out, pump))


@dataclass(slots=True)
class OilUnit:
    """A unit full of oil: it holds, and leaks through what is open."""

    unit: LiquidVolume = field(default_factory=lambda: LiquidVolume(Liquid(), 420.0))
    relief: ReliefValve = field(default_factory=lambda: ReliefValve(42.0))
    pump: float = 3000.0
    rod: float = 28.0
    bore: float = 50.0
    seal: float = 8.0
    room: float = 23.96
    leaked: float = 0.0
    pumped: float = 0.0
    out: float = 0.0
    key: str = "oil"
    says: str = "Oil-filled unit"
    dials: tuple[Dial, ...] = ()

    def __post_init__(self) -> None:
        self.dials = (
            Dial("rod_gap", "Gap at the rod seal", "µm", 0.9, 200.0),
            Dial("bypass_gap", "Gap at the piston seal", "µm", 0.0, 200.0),
            Dial("hole", "A hole", "mm", 0.0, 3.0),
            Dial("volume", "Volume", "ml", self.unit.volume, 20_000.0, 5.0),
            Dial("hoses", "Hose compliance", "ml/MPa", self.unit.hoses, 50.0),
        )

    def leaks(self, settings: Mapping[str, float], *, shut: bool) -> float:
        """What leaks out now. [ml/min]"""
        p, liquid = self.unit.pressure, self.unit.liquid
        total = 0.0 if shut else self.relief.flow(p)
        if hole := settings.get("hole", 0.0):
            total += orifice_flow(p, 0.0, hole, liquid)
        for name, along in (("rod_gap", self.rod), ("bypass_gap", self.bore)):
            if gap := settings.get(name, 0.0) * _MM_PER_UM:
                total += gap_flow(p, 0.0, along, gap, self.seal, liquid)
        return total

    def advance(self, seconds: float, wanted: float, shut: bool, settings: Mapping[str, float]) -> None:
        self.unit.volume, self.unit.hoses = settings["volume"], settings["hoses"]
        self.out = self.leaks(settings, shut=shut)
        lacks = wanted - self.unit.pressure
        came = 0.0 if shut else governed(self.pump, lacks, self.unit.softness, self.out, seconds)
        self.pumped += came * seconds / 60
        self.leaked += self.out * seconds / 60
        self.unit.step(seconds, came - self.out, self.room)

    def reading(self) -> Reading:
        p = self.unit.pressure
        return Reading(pressure=p, supply=p, temperature=self.unit.temperature, flow=self.out)


@dataclass(slots=True)
class Opening:
    """A valve or injector pumped by hand: the pressure climbs, it opens, falls to where it shuts, and climbs again."""

    unit: LiquidVolume = field(default_factory=lambda: LiquidVolume(Liquid(), 20.0, hoses=0.01, settles=0.0))
    valve: ReliefValve = field(default_factory=lambda: ReliefValve(25.0, passes=3000.0))
    stroke: float = 12.0
    out: float = 0.0
    key: str = "opening"
    says: str = "Valve or injector"
    dials: tuple[Dial, ...] = (
        Dial("opens", "Opens at", "bar", 250.0, 600.0, 5.0),
        Dial("shuts", "Shuts below that by", "bar", 20.0, 200.0),
        Dial("seat_hole", "Seat leakage through", "mm", 0.0, 0.5),
    )

    def advance(self, seconds: float, wanted: float, shut: bool, settings: Mapping[str, float]) -> None:
        self.valve.opens = settings["opens"] / _BAR_PER_MPA
        self.valve.friction = min(settings["shuts"] / _BAR_PER_MPA, 0.9 * self.valve.opens) / 2
        p = self.unit.pressure
        hole = settings["seat_hole"]
        seeps = orifice_flow(max(p, 0.0), 0.0, hole, self.unit.liquid) if hole else 0.0
        out = self.valve.flow(p)
        if self.valve.is_open:
            # It may not fall past where it shuts within one step.
            shuts = self.valve.opens - 2 * self.valve.friction
            out = min(out, max(p - shuts, 0.0) * self.unit.softness * 60 / seconds + self.stroke)
        self.out = out = out + seeps
        came = 0.0 if shut else governed(self.stroke, wanted - p, self.unit.softness, seeps, seconds)
        self.unit.step(seconds, came - out, self.unit.temperature)

    def reading(self) -> Reading:
        p = self.unit.pressure
        return Reading(pressure=p, supply=p, temperature=self.unit.temperature, flow=self.out)


@dataclass(slots=True)
class Relief:
    """A relief valve with the pump running through it: by its damping it stands still or flutters on its seat."""

    unit: LiquidVolume = field(default_factory=lambda: LiquidVolume(Liquid(), 500.0, settles=0.0))
    poppet: Poppet = field(default_factory=lambda: Poppet(20.0))
    key: str = "relief"
    says: str = "Relief valve under flow"
    dials: tuple[Dial, ...] = (
        Dial("opens", "Opens at", "bar", 200.0, 600.0, 5.0),
        Dial("pump", "Pump flow", "l/min", 3.0, 20.0, 0.1),
        Dial("damping", "Damping of its poppet", "N·s/m", 1500.0, 5000.0),
        Dial("friction", "Friction of its guide", "N", 0.0, 200.0),
    )
    _FINE_S: float = 2e-5
    _ML_PER_L: float = 1000.0

    def advance(self, seconds: float, wanted: float, shut: bool, settings: Mapping[str, float]) -> None:  # noqa: ARG002
        poppet = self.poppet
        poppet.opens = settings["opens"] / _BAR_PER_MPA
        poppet.damping, poppet.friction = settings["damping"], settings["friction"]
        gives = settings["pump"] * self._ML_PER_L
        if wanted <= 0:
            self.unit.pressure, poppet.lift, poppet.speed = 0.0, 0.0, 0.0
            return
        # The pump itself goes no higher than it is set to.
        steps = max(1, math.ceil(seconds / self._FINE_S))
        for _ in range(steps):
            p = self.unit.pressure
            poppet.step(seconds / steps, p)
            came = gives if p < wanted else 0.0
            self.unit.step(seconds / steps, came - poppet.flow(p, self.unit.liquid), self.unit.temperature)

    def reading(self) -> Reading:
        p = self.unit.pressure
        flow = self.poppet.flow(p, self.unit.liquid)
        return Reading(
            pressure=p, supply=0.0, temperature=self.unit.temperature, flow=flow, position=self.poppet.lift * 1000
        )


@dataclass(slots=True)
class RegulatorRig:
    """A reducing regulator for air: the stand gives the supply, the outlet is read; a flow can be drawn."""

    regulator: Regulator = field(default_factory=lambda: Regulator(0.4))
    outlet_ml: float = 500.0
    shown: float = 0.0
    supply: float = 0.0
    drawn: float = 0.0
    key: str = "regulator"
    says: str = "Air regulator"
    dials: tuple[Dial, ...] = (
        Dial("set_to", "Set to", "bar", 4.0, 20.0),
        Dial("draws", "Outlet flow", "l/min", 0.0, 500.0),
        Dial("seat_leak", "Seat leakage", "ml/min", 0.0, 500.0),
    )

    def advance(self, seconds: float, wanted: float, shut: bool, settings: Mapping[str, float]) -> None:
        self.supply += (max(wanted, 0.0) - self.supply) * (1 - math.exp(-seconds / 0.3))
        self.regulator.set_to = settings["set_to"] / _BAR_PER_MPA
        self.regulator.seat_leak = settings["seat_leak"]
        flow = settings["draws"]
        if flow > 0:
            self.regulator.risen = 0.0
        elif shut:
            self.regulator.wait(seconds, self.outlet_ml, self.supply)
        rising = flow <= self.drawn
        target = min(self.regulator.outlet(flow, rising), self.supply)
        self.drawn = flow
        self.shown += (target - self.shown) * (1 - math.exp(-seconds / 0.5))

    def reading(self) -> Reading:
        return Reading(pressure=self.shown, supply=self.supply, flow=self.drawn * 1000)


@dataclass(slots=True)
class AirUnit:
    """A unit full of air, with a hole."""

    unit: GasVolume = field(default_factory=lambda: GasVolume(1000.0))
    pump: float = 1.0
    out: float = 0.0
    room: float = 24.0
    key: str = "air"
    says: str = "Air-filled unit"
    dials: tuple[Dial, ...] = (Dial("hole", "A hole", "mm", 0.0, 2.0),)
    _STANDARD_MG_PER_ML: float = 1.2041

    def advance(self, seconds: float, wanted: float, shut: bool, settings: Mapping[str, float]) -> None:
        p = self.unit.pressure
        hole = settings["hole"]
        out = gas_flow(p, 0.0, self.unit.temperature, hole) if hole else 0.0
        lacks = wanted - p
        per_mpa = self.unit.mass / (p + AIR_MPA)
        came = max(-self.pump, min(self.pump, lacks * per_mpa / max(seconds, 0.2) + out))
        self.out = out * 1000 / self._STANDARD_MG_PER_ML * 60
        self.unit.step(seconds, (0.0 if shut else came) - out, self.room, self.room)

    def reading(self) -> Reading:
        p = self.unit.pressure
        return Reading(pressure=p, supply=p, temperature=self.unit.temperature, flow=self.out)


@dataclass(slots=True)
class Ram:
    """A ram pushed through its seals by oil that gives: it sticks, breaks away and slips, and reads position and force."""

    area: float = 1000.0
    stroke: float = 400.0
    speed: float = 5.0
    rod: Sliding = field(default_factory=lambda: Sliding(400.0, 250.0, 60.0))
    pushed_to: float = 0.0
    force: float = 0.0
    key: str = "ram"
    says: str = "Moving ram"
    dials: tuple[Dial, ...] = (
        Dial("breakaway", "Breaks away at", "N", 400.0, 20_000.0, 1.0),
        Dial("running", "Runs at", "N", 250.0, 20_000.0, 1.0),
    )
    _FINE_S: float = 0.0005

    def advance(self, seconds: float, wanted: float, shut: bool, settings: Mapping[str, float]) -> None:
        self.rod.breakaway = max(settings["breakaway"], settings["running"])
        self.rod.running = settings["running"]
        able = wanted * self.area / _NEWTON_PER_MPA_MM2
        for _ in range(max(1, math.ceil(seconds / self._FINE_S))):
            step = seconds / max(1, math.ceil(seconds / self._FINE_S))
            if not shut and wanted > 0 and self.force < able and self.rod.position < self.stroke:
                self.pushed_to += self.speed * step
            if wanted == 0:
                self.pushed_to, self.rod.position, self.rod.speed = 0.0, 0.0, 0.0
            self.force = self.rod.step(step, self.pushed_to)

    def reading(self) -> Reading:
        pressure = self.force / self.area
        return Reading(
            pressure=pressure, supply=pressure, position=self.rod.position, force=self.force, flow=self.rod.speed * 60
        )


@dataclass(slots=True)
class Demand:
    """A demand valve that is breathed from: effort in the mouthpiece over the flow drawn."""

    valve: DemandValve = field(default_factory=lambda: DemandValve(300.0))
    clock: float = 0.0
    breath_s: float = 4.0
    peak_l_min: float = 60.0
    shown: float = 0.0
    drawn: float = 0.0
    supply: float = 0.0
    key: str = "demand"
    says: str = "Demand valve, breathing"
    dials: tuple[Dial, ...] = (
        Dial("cracks", "Opens at an effort of", "Pa", 300.0, 2000.0),
        Dial("rises", "Rises with the flow by", "Pa a l/min", 3.0, 50.0),
    )

    def advance(self, seconds: float, wanted: float, shut: bool, settings: Mapping[str, float]) -> None:  # noqa: ARG002
        self.valve.cracks, self.valve.rises = settings["cracks"], settings["rises"]
        self.supply = max(wanted, 0.0)
        self.clock = (self.clock + seconds) % self.breath_s
        self.drawn = max(0.0, self.peak_l_min * math.sin(2 * math.pi * self.clock / self.breath_s))
        self.shown = -self.valve.effort(self.drawn) / _PA_PER_MPA if self.supply > 0 else 0.0

    def reading(self) -> Reading:
        return Reading(pressure=self.shown, supply=self.supply, flow=self.drawn * 1000)


@dataclass(slots=True)
class Stroking:
    """An air motor or dosing motor on its supply: it goes to and fro, and its strokes are counted; or it stalls."""

    stroker: Stroker = field(default_factory=Stroker)
    stroke_mm: float = 40.0
    supply: float = 0.0
    flow: float = 0.0
    key: str = "stroking"
    says: str = "Stroking motor or pump"
    dials: tuple[Dial, ...] = (
        Dial("swept", "A stroke takes", "ml", 30.0, 5000.0, 1.0),
        Dial("passes", "Intake at 1 bar", "l/min", 1.0, 500.0, 0.01),
        Dial("starts", "Starts at", "bar", 0.3, 20.0),
        Dial("runs", "Runs on down to", "bar", 0.2, 20.0),
        Dial("past", "Passes its rings at 1 bar", "l/min", 0.0, 500.0),
        Dial("outlet", "Outlet open", "%", 100.0, 100.0),
    )

    def advance(self, seconds: float, wanted: float, shut: bool, settings: Mapping[str, float]) -> None:  # noqa: ARG002
        self.supply += (max(wanted, 0.0) - self.supply) * (1 - math.exp(-seconds / 0.3))
        moved = self.stroker
        # Another sweep on the dial leaves the piston where it stands.
        moved.filled *= settings["swept"] / moved.swept
        moved.swept, moved.outlet = settings["swept"], settings["outlet"] / 100
        moved.passes, moved.past = settings["passes"] * 1000, settings["past"] * 1000
        moved.runs = settings["runs"] / _BAR_PER_MPA
        moved.starts = max(settings["starts"] / _BAR_PER_MPA, moved.runs)
        before = moved.came
        moved.step(seconds, self.supply)
        self.flow = (moved.came - before) / seconds * 60

    def reading(self) -> Reading:
        # It is fed for as long as the pump is set to something: nothing is held.
        place = self.stroker.place * self.stroke_mm
        return Reading(pressure=self.supply, flow=self.flow, position=place)


RIGS: Mapping[str, type[Rig]] = {
    "oil": OilUnit, "air": AirUnit, "opening": Opening, "relief": Relief, "regulator": RegulatorRig, "ram": Ram,
    "demand": Demand, "stroking": Stroking,
}  # fmt: skip
