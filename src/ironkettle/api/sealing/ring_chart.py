"""The pocket chart: the whole size table filtered, as CSV, and two sizes side by side."""

from __future__ import annotations

import csv
import io
from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field

from ironkettle.api.base.deps import SettingsInForce
from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import Body, Collector, LengthText, NameText, SizeName, SizeOut, size_out
from ironkettle.api.sealing.rings import SeriesName
from ironkettle.core.base.errors import FieldFault, RuleError
from ironkettle.core.base.quantities import read_length
from ironkettle.core.sealing.rings import RingSize, RingTable, compare_sizes, plain_designation
from ironkettle.reference import ring_table

router = APIRouter(prefix="/api/rings", tags=["rings"], responses=ERROR_RESPONSES)
_INCH = 25.4
_NEAR_MM = 0.75


class ChartFilter(Body):
    """``name`` is part of a designation; ``around`` an inside diameter to look near; ``section`` exact to 0.03 mm."""

    series: SeriesName | None = None
    name: NameText | None = None
    around: LengthText | None = Field(default=None, examples=["25 mm"])
    section: LengthText | None = Field(default=None, examples=["3.53 mm"])
    limit: int = Field(default=200, ge=1, le=5000)


class ChartRow(SizeOut):
    outside_diameter_mm: float
    source: str
    also: list[SizeName]


class ChartOut(BaseModel):
    """``total`` counts all that pass the filter; ``sections_mm`` lists the sections there are."""

    total: int
    rows: list[ChartRow]
    sections_mm: list[float]


Filtered = Annotated[ChartFilter, Query()]


@router.get("/sizes", summary="The size table, filtered")
def sizes(wanted: Filtered) -> ChartOut:
    table = ring_table()
    places = _filtered(table, wanted)
    return ChartOut(
        total=len(places),
        rows=[
            ChartRow(
                **size_out(table.sizes[i]),
                outside_diameter_mm=round(table.sizes[i].outside_diameter, 4),
                source=f"{table.sizes[i].source}: {table.sizes[i].sure}",
                also=[SizeName.of(table.sizes[other]) for other in table.names_of(i) if other != i],
            )
            for i in places[: wanted.limit]
        ],
        sections_mm=sorted({round(s.section, 2) for s in table.sizes if wanted.series in (None, s.series)}),
    )


@router.get("/sizes.csv", summary="The size table, filtered, as CSV", response_class=Response)
def sizes_csv(wanted: Filtered) -> Response:
    table = ring_table()
    out = io.StringIO()
    write = csv.writer(out)
    write.writerow(
        ["series", "designation", "inside_diameter_mm", "inside_tolerance_mm", "section_mm", "section_tolerance_mm",
         "inside_diameter_in", "section_in", "source", "how_sure"]
    )  # fmt: skip
    for i in _filtered(table, wanted):
        size = table.sizes[i]
        write.writerow(
            [size.series, size.designation, f"{size.inside_diameter:.3f}", f"{size.inside_tolerance:.3f}",
             f"{size.section:.3f}", f"{size.section_tolerance:.3f}", f"{size.inside_diameter / _INCH:.4f}",
             f"{size.section / _INCH:.4f}", size.source, size.sure]
        )  # fmt: skip
    disposition = {"Content-Disposition": 'attachment; filename="ring-sizes.csv"'}
    return Response(out.getvalue(), media_type="text/csv; charset=utf-8", headers=disposition)


def _filtered(table: RingTable, wanted: ChartFilter) -> list[int]:
    """Places of the sizes that pass, nearest diameter first when one is looked for."""
    read = Collector()
    around = read.get(read_length, wanted.around, "around")
    section = read.get(read_length, wanted.section, "section", high=50.0)
    read.done()
    name = plain_designation(wanted.name or "")

    def passes(size: RingSize) -> bool:
        return (
            wanted.series in (None, size.series)
            and name in size.designation.casefold()
            and (around is None or abs(size.inside_diameter - around) <= max(_NEAR_MM, 0.02 * around))
            and (section is None or abs(size.section - section) <= 0.03)
        )

    passing = {i for i, size in enumerate(table.sizes) if passes(size)}
    # A ring under several names is one line, under the first of its names that passes.
    places = [i for i in sorted(passing) if not any(other < i and other in passing for other in table.names_of(i))]
    if around is not None:
        places.sort(key=lambda i: abs(table.sizes[i].inside_diameter - around))
    return places


class NamedSize(Body):
    series: NameText = Field(examples=["AS568"])
    designation: NameText = Field(examples=["214"])


class CompareBody(Body):
    first: NamedSize
    second: NamedSize


class DifferenceOut(BaseModel):
    """``mistaken`` is the chance of one caliper reading taking one size for the other."""

    what: str
    first_mm: float
    second_mm: float
    mistaken: float
    distinguishes: bool


class CompareOut(BaseModel):
    first: SizeOut
    second: SizeOut
    differences: list[DifferenceOut]


@router.post("/compare", summary="Two sizes side by side")
def compare(body: CompareBody, settings: SettingsInForce) -> CompareOut:
    faults: list[FieldFault] = []
    found: list[RingSize] = []
    for field, named in (("first", body.first), ("second", body.second)):
        try:
            found.append(ring_table().find(named.series, named.designation, field))
        except RuleError as error:
            faults.extend(error.faults)
    if faults:
        raise RuleError(faults)
    first, second = found
    return CompareOut(
        first=SizeOut(**size_out(first)),
        second=SizeOut(**size_out(second)),
        differences=[
            DifferenceOut(
                what=d.what, first_mm=d.first, second_mm=d.second, mistaken=d.mistaken, distinguishes=d.distinguishes
            )
            for d in compare_sizes(first, second, settings.uncertainty)
        ],
    )
