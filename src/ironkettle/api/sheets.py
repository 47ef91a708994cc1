"""Build sheets: list, read with everything computed from it, import, export, schema."""

from __future__ import annotations

from typing import Any

import yaml
from fastapi import APIRouter, Path, Response
from pydantic import BaseModel, Field

from ironkettle.api.deps import DbSession
from ironkettle.api.glands import GrooveBody
from ironkettle.api.problems import CONFLICT, ERROR_RESPONSES, NOT_THERE, NotThereError
from ironkettle.api.schemas import Body
from ironkettle.api.stacks import OrientOut, orientation_out
from ironkettle.core.buildsheets import (
    BuildSheet,
    StationSpec,
    cylinder_of,
    gland_of,
    orientation_of,
    read_sheet,
    sheet_schema,
)
from ironkettle.core.cylinders import oil_to_drain, size_cylinder
from ironkettle.core.drawings import Scene, draw
from ironkettle.core.quantities import read_gauge_pressure
from ironkettle.reference import ring_table
from ironkettle.store.sheets import add_sheet, latest_sheets, load_sheet

router = APIRouter(prefix="/api/sheets", tags=["sheets"], responses=ERROR_RESPONSES)


class SheetSummary(BaseModel):
    key: str
    version: int
    name: str
    family: str


class SheetSums(BaseModel):
    oil_to_drain_ml: float | None
    blocked_rod_pressure_mpa: float | None


class SheetView(BaseModel):
    """The document with all that follows from it."""

    document: BuildSheet
    drawing: Scene
    orientation: OrientOut
    glands: dict[str, GrooveBody]
    sums: SheetSums


class ImportBody(Body):
    text: str = Field(min_length=1, max_length=400_000)


def find_sheet(session: DbSession, key: str, version: int | None = None) -> BuildSheet:
    sheet = load_sheet(session, key, version)
    if sheet is None:
        raise NotThereError("build sheet", f"{key} {version or ''}".strip())
    return sheet


def sheet_view(sheet: BuildSheet) -> SheetView:
    oil = blocked = None
    if sheet.cylinder is not None:
        cylinder = cylinder_of(sheet)
        oil = oil_to_drain(cylinder)
        blocked = size_cylinder(cylinder, read_gauge_pressure(sheet.ratings.pressure, "pressure")).blocked_rod_pressure
    return SheetView(
        document=sheet,
        drawing=draw(sheet, ring_table()),
        orientation=orientation_out(orientation_of(sheet)),
        glands={station.key: _groove(sheet, station) for station in sheet.stations},
        sums=SheetSums(oil_to_drain_ml=oil, blocked_rod_pressure_mpa=blocked),
    )


def _groove(sheet: BuildSheet, station: StationSpec) -> GrooveBody:
    """The station's groove as the body of /api/glands/check, ring left out."""
    seat, gland = station.seat, gland_of(sheet, station)
    return GrooveBody(
        seat=seat.kind,
        motion=station.motion,
        medium=seat.medium,
        bore=seat.bore,
        rod=seat.rod,
        groove_diameter=seat.groove_diameter,
        groove_depth=seat.groove_depth,
        groove_width=seat.groove_width,
        diametral_clearance=seat.diametral_clearance,
        pressure=f"{gland.pressure or 0:g} MPa",
        pressure_direction=seat.pressure_direction,
        hardness_shore_a=seat.hardness_shore_a,
        backup_rings_fitted=min(gland.backup_rings_fitted, 2),
    )


@router.get("", summary="The newest version of each sheet")
def sheets(session: DbSession) -> list[SheetSummary]:
    return [SheetSummary(key=r.key, version=r.version, name=r.name, family=r.family) for r in latest_sheets(session)]


@router.get("/schema", summary="JSON Schema of a build sheet")
def schema() -> dict[str, Any]:
    return sheet_schema()


@router.post("", summary="Import a sheet from YAML or JSON", responses=CONFLICT)
def import_sheet(body: ImportBody, session: DbSession) -> SheetSummary:
    row = add_sheet(session, read_sheet(body.text))
    return SheetSummary(key=row.key, version=row.version, name=row.name, family=row.family)


@router.get("/{key}/{version}", summary="A sheet with everything computed from it", responses=NOT_THERE)
def sheet(session: DbSession, key: str, version: int = Path(ge=1, le=100_000)) -> SheetView:
    return sheet_view(find_sheet(session, key, version))


@router.get("/{key}/{version}/export", summary="A sheet as YAML", responses=NOT_THERE)
def export(session: DbSession, key: str, version: int = Path(ge=1, le=100_000)) -> Response:
    document = find_sheet(session, key, version).model_dump(mode="json", exclude_none=True)
    text = yaml.safe_dump(document, allow_unicode=True, sort_keys=False, width=110)
    name = f"{key}-{version}.yaml"
    return Response(
        text, media_type="application/yaml", headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )
