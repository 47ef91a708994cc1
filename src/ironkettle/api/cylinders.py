"""POST /api/cylinders/size."""

from __future__ import annotations

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.problems import ERROR_RESPONSES
from ironkettle.api.schemas import Body, Collector, FindingOut, QuantityText, findings_out
from ironkettle.core.cylinders import Cylinder, size_cylinder
from ironkettle.core.quantities import read_flow, read_gauge_pressure, read_length

router = APIRouter(prefix="/api/cylinders", tags=["cylinders"], responses=ERROR_RESPONSES)


class CylinderBody(Body):
    bore: QuantityText = Field(examples=["63 mm"])
    rod: QuantityText = Field(examples=["36 mm"])
    stroke: QuantityText = Field(examples=["400 mm"])
    pressure: QuantityText = Field(examples=["180 bar"])
    flow: QuantityText | None = Field(default=None, examples=["30 l/min"])


class CylinderOut(BaseModel):
    cap_area_mm2: float
    rod_area_mm2: float
    push_kn: float
    pull_kn: float
    ratio: float
    cap_volume_ml: float
    rod_volume_ml: float
    blocked_rod_pressure_mpa: float
    extend_s: float | None
    retract_s: float | None
    findings: list[FindingOut]


@router.post("/size", summary="Forces, volumes and times of a cylinder")
def size(body: CylinderBody) -> CylinderOut:
    read = Collector()
    bore = read.get(read_length, body.bore, "bore", high=5000.0)
    rod = read.get(read_length, body.rod, "rod", high=5000.0)
    stroke = read.get(read_length, body.stroke, "stroke")
    pressure = read.get(read_gauge_pressure, body.pressure, "pressure")
    flow = read.get(read_flow, body.flow, "flow")
    read.done()
    sums = size_cylinder(Cylinder(bore, rod, stroke), pressure, flow)
    return CylinderOut(
        cap_area_mm2=sums.cap_area,
        rod_area_mm2=sums.rod_area,
        push_kn=sums.push,
        pull_kn=sums.pull,
        ratio=sums.ratio,
        cap_volume_ml=sums.cap_volume,
        rod_volume_ml=sums.rod_volume,
        blocked_rod_pressure_mpa=sums.blocked_rod_pressure,
        extend_s=sums.extend,
        retract_s=sums.retract,
        findings=findings_out(sums.findings),
    )
