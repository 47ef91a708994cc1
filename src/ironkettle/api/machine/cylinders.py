"""POST /api/cylinders/size."""

from __future__ import annotations

from collections.abc import Callable

from fastapi import APIRouter
from pydantic import AliasChoices, BaseModel, Field

from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import (
    Body,
    Collector,
    FindingOut,
    FlowText,
    ForceText,
    LengthText,
    NameText,
    PressureText,
    SpeedText,
    findings_out,
)
from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import Finding, reject
from ironkettle.core.base.housing import HOUSINGS, HousingMaterial
from ironkettle.core.base.quantities import (
    Dimension,
    read_flow,
    read_gauge_pressure,
    read_length,
    read_quantity,
    read_speed,
)
from ironkettle.core.base.text import Figure
from ironkettle.core.machine.cylinders import (
    Cylinder,
    Rating,
    drift_of,
    held_pressure,
    leak_of,
    oil_to_drain,
    size_cylinder,
    thermal_rise,
    weakest,
)
from ironkettle.core.machine.pressure import Fluid, find_fluid
from ironkettle.reference import fluids

_ROOM_C = 20.0

router = APIRouter(prefix="/api/cylinders", tags=["cylinders"], responses=ERROR_RESPONSES)


class RatedBody(Body):
    part: NameText
    rated: PressureText = Field(examples=["250 bar"])


class CylinderBody(Body):
    """``load`` hangs on or pushes against the rod; ``leak`` or ``drift`` past the piston; ``warming`` of oil locked in."""

    bore: LengthText = Field(examples=["63 mm"])
    rod: LengthText = Field(examples=["36 mm"])
    stroke: LengthText = Field(examples=["400 mm"])
    pressure: PressureText = Field(examples=["180 bar"])
    flow: FlowText | None = Field(default=None, examples=["30 l/min"])
    load: ForceText | None = Field(default=None, examples=["20 kN"])
    leak: FlowText | None = Field(default=None, examples=["1 ml/min"])
    drift: SpeedText | None = Field(default=None, examples=["2 mm/min"])
    warming_k: Figure | None = Field(default=None, ge=-100, le=200)
    fluid: NameText = Field(default="mineral oil ISO VG 46", validation_alias=AliasChoices("medium", "fluid"))
    rating: PressureText | None = Field(default=None, examples=["250 bar"], description="of the whole cylinder")
    housing: HousingMaterial = HousingMaterial.STEEL
    ratings: list[RatedBody] = Field(default=[], max_length=50)


class SidesOut(BaseModel):
    """A figure for the cap side and for the rod side; None where there is no rod side."""

    cap: float
    rod: float | None


class CylinderOut(BaseModel):
    """``oil_ml``: the most that can come out. ``load_bar``: what carries the load on either side; ``drift_mm_min`` of the leak,
    ``leak_ml_min`` of the drift; ``thermal_bar``: what locked oil rises by; ``weakest`` decides how far it may be pressed.
    """

    cap_area_mm2: float
    rod_area_mm2: float
    push_kn: float
    pull_kn: float
    ratio: float | None
    cap_volume_ml: float
    rod_volume_ml: float
    oil_ml: float
    blocked_rod_pressure_mpa: float | None
    extend_s: float | None
    retract_s: float | None
    load_bar: SidesOut | None
    drift_mm_min: SidesOut | None
    leak_ml_min: SidesOut | None
    thermal_bar: float | None
    weakest: str | None
    weakest_bar: float | None
    findings: list[FindingOut]


@router.post("/size", summary="Forces, volumes, times, loads, drift and heat of a cylinder")
def size(body: CylinderBody) -> CylinderOut:
    read = Collector()
    bore = read.get(read_length, body.bore, "bore", high=5000.0)
    rod = read.get(read_length, body.rod, "rod", high=5000.0)
    stroke = read.get(read_length, body.stroke, "stroke")
    pressure = read.get(read_gauge_pressure, body.pressure, "pressure")
    flow = read.get(read_flow, body.flow, "flow")
    load = read.get(lambda text, field: read_quantity(text, Dimension.FORCE, field).value, body.load, "load")
    leak = read.get(read_flow, body.leak, "leak")
    drift = read.get(read_speed, body.drift, "drift")
    fluid = read.get(lambda text, field: find_fluid(text, fluids(), field), body.fluid, "fluid")
    ratings = [
        Rating(rating.part, read.get(read_gauge_pressure, rating.rated, f"ratings.{place}.rated"))
        for place, rating in enumerate(body.ratings)
    ]
    if body.rating is not None:
        ratings.append(Rating("cylinder", read.get(read_gauge_pressure, body.rating, "rating")))
    read.require(load is None or load >= 0, "load", "cannot be negative", "20 kN")
    read.done()
    cylinder = Cylinder(bore, rod, stroke)
    sums = size_cylinder(cylinder, pressure, flow)
    found = list(sums.findings)
    first = weakest(ratings) if ratings else None
    thermal = _thermal(body, fluid)
    held = _sides(cylinder, None if load is None else lambda area: 10 * held_pressure(load, area))
    if first is not None:
        found += _over(first, pressure, sums.blocked_rod_pressure)
        found += _over_by_heat_or_load(first, pressure, thermal, held)
    return CylinderOut(
        cap_area_mm2=sums.cap_area,
        rod_area_mm2=sums.rod_area,
        push_kn=sums.push,
        pull_kn=sums.pull,
        ratio=sums.ratio,
        cap_volume_ml=sums.cap_volume,
        rod_volume_ml=sums.rod_volume,
        oil_ml=oil_to_drain(cylinder),
        blocked_rod_pressure_mpa=sums.blocked_rod_pressure,
        extend_s=sums.extend,
        retract_s=sums.retract,
        load_bar=held,
        drift_mm_min=_sides(cylinder, None if leak is None else lambda area: drift_of(leak, area)),
        leak_ml_min=_sides(cylinder, None if drift is None else lambda area: leak_of(drift * 60_000, area)),
        thermal_bar=thermal,
        weakest=first and first.part,
        weakest_bar=None if first is None else first.rated * 10,
        findings=findings_out(found),
    )


def _sides(cylinder: Cylinder, of: Callable[[float], float] | None) -> SidesOut | None:
    if of is None:
        return None
    return SidesOut(cap=of(cylinder.cap_area), rod=None if cylinder.plunger else of(cylinder.rod_area))


def _thermal(body: CylinderBody, fluid: Fluid) -> float | None:
    if body.warming_k is None:
        return None
    if fluid.bulk_modulus_gpa is None:
        raise fault(
            "fluid", f"{fluid.name} has no bulk modulus: it is a gas, and its pressure follows its absolute temperature"
        )
    linear = HOUSINGS[body.housing].linear_expansion
    return 10 * thermal_rise(
        fluid.bulk_modulus_gpa * 1000,
        fluid.expansion_between(_ROOM_C, _ROOM_C + body.warming_k),
        linear,
        body.warming_k,
    )


def _over(first: Rating, pressure: float, blocked: float | None) -> list[Finding]:
    """Whether the weakest part is pressed past its rating, by the pressure or by what it becomes in a blocked side."""
    basis = "the weakest rated part decides"
    if pressure > first.rated:
        text = f"{pressure * 10:g} bar is above the rating of the {first.part}, {first.rated * 10:g} bar"
        return [reject("over-rating", text, basis)]
    if blocked is not None and blocked > first.rated:
        text = f"a blocked rod side would reach {blocked * 10:.0f} bar, above the rating of the {first.part}, {first.rated * 10:g} bar"
        return [reject("over-rating-blocked", text, basis)]
    return []


def _over_by_heat_or_load(
    first: Rating, pressure: float, thermal: float | None, held: SidesOut | None
) -> list[Finding]:
    """Whether oil shut in and warming, or the load that hangs on it, presses the weakest part past its rating. [MPa, bar]"""
    basis, rated = "the weakest rated part decides", f"the rating of the {first.part}, {first.rated * 10:g} bar"
    found = []
    if thermal is not None and pressure * 10 + thermal > first.rated * 10:
        text = (
            f"Trapped at {pressure * 10:g} bar and warmed, it reaches {pressure * 10 + thermal:.0f} bar, above {rated}. "
            "Leave it a way out, or fit a relief valve."
        )
        found.append(reject("over-rating-warm", text, basis))
    sides = [] if held is None else [side for side in (held.cap, held.rod) if side is not None]
    if sides and max(sides) > first.rated * 10:
        text = f"The load alone produces {max(sides):.0f} bar, above {rated}. Support the load another way."
        found.append(reject("over-rating-load", text, basis))
    return found
