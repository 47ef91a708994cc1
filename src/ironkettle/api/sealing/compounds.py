"""Compounds: which stands the service, and with which lubricant."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.base.deps import DbSession
from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import (
    Body,
    Collector,
    FindingOut,
    LengthText,
    NameText,
    PressureText,
    TemperatureText,
    findings_out,
)
from ironkettle.core.base.findings import Finding, verdict_of
from ironkettle.core.base.quantities import read_gauge_pressure, read_length, read_temperature
from ironkettle.core.sealing.compounds import (
    CLEANERS,
    LUBRICANTS,
    WORDS,
    Cleaner,
    CompoundAdvice,
    Duty,
    Lubricant,
    check_lubricant,
    find_compound,
    find_lubricant,
    medium_of,
    rank_compounds,
)
from ironkettle.core.sealing.grooves import hardness_for
from ironkettle.reference import compounds, extrusion_limits, fluids, media
from ironkettle.store.shop.lubricants import own_lubricants

router = APIRouter(prefix="/api", tags=["compounds"], responses=ERROR_RESPONSES)


class FluidOut(BaseModel):
    name: str
    gas: bool


class AdviseBody(Body):
    """``fluids``: what the seal meets, by the name of a fluid or of a medium of the table."""

    fluids: list[NameText] = Field(min_length=1, max_length=8, examples=[["mineral oil ISO VG 46"]])
    temperature_min: TemperatureText = Field(default="0 °C", examples=["-10 °C"])
    temperature_max: TemperatureText = Field(default="60 °C", examples=["70 °C"])
    moving: bool = False
    duty: Duty = Duty.GENERAL
    lubricant: Lubricant | None = None
    packing_set: bool = False
    worst_gap: LengthText | None = Field(default=None, examples=["0.10 mm"])
    pressure: PressureText | None = Field(default=None, examples=["16 MPa"])
    section: LengthText | None = Field(default=None, examples=["3.53 mm"])


class CompoundOut(BaseModel):
    name: str
    temperature_low_c: float
    temperature_high_c: float
    rating: int
    rating_words: str
    verdict: Literal["good", "caution", "reject"]
    findings: list[FindingOut]
    lubricant_findings: list[FindingOut]


class HardnessOut(BaseModel):
    """``shore_a`` is the softest that stands the gap unbacked; none: fit a backup ring."""

    shore_a: int | None
    message: str


class AdviseOut(BaseModel):
    media: list[str]
    compounds: list[CompoundOut]
    hardness: HardnessOut | None


@router.get("/fluids", summary="The fluids the application knows by name")
def known_fluids() -> list[FluidOut]:
    return [FluidOut(name=fluid.name, gas=fluid.gas) for fluid in fluids()]


@router.get("/compounds/media", summary="The media of the compatibility table")
def known_media() -> list[str]:
    return list(media())


@router.post("/compounds/advise", summary="Compounds for a service, best first")
def advise(body: AdviseBody) -> AdviseOut:
    read = Collector()
    columns = [
        read.get(lambda text, field: medium_of(text, media(), field), fluid, f"fluids.{place}")
        for place, fluid in enumerate(body.fluids)
    ]
    low = read.get(read_temperature, body.temperature_min, "temperature_min")
    high = read.get(read_temperature, body.temperature_max, "temperature_max")
    hardness = _hardness(body, read)
    read.done()
    ranked = rank_compounds(compounds(), columns, low, high, moving=body.moving, duty=body.duty)
    return AdviseOut(
        media=columns, compounds=[_compound_out(advice, body, columns) for advice in ranked], hardness=hardness
    )


def _compound_out(advice: CompoundAdvice, body: AdviseBody, columns: list[str]) -> CompoundOut:
    lubricated: tuple[Finding, ...] = ()
    if body.lubricant is not None:
        lubricated = check_lubricant(
            body.lubricant, advice.compound, columns, duty=body.duty, packing_set=body.packing_set
        )
    return CompoundOut(
        name=advice.compound.name,
        temperature_low_c=advice.compound.low,
        temperature_high_c=advice.compound.high,
        rating=advice.worst,
        rating_words=WORDS[advice.worst],
        verdict=advice.verdict,
        findings=findings_out(advice.findings),
        lubricant_findings=findings_out(lubricated),
    )


def _hardness(body: AdviseBody, read: Collector) -> HardnessOut | None:
    gap = read.get(read_length, body.worst_gap, "worst_gap")
    pressure = read.get(read_gauge_pressure, body.pressure, "pressure")
    section = read.get(read_length, body.section, "section", high=50.0)
    given = {"worst_gap": body.worst_gap, "pressure": body.pressure, "section": body.section}
    if all(text is None for text in given.values()):
        return None
    for field, text in given.items():
        read.require(text is not None, field, "is needed too: hardness follows from gap, pressure and section")
    if None in (gap, pressure, section):
        return None
    grade = hardness_for(extrusion_limits(), gap, pressure, section)
    if grade is None:
        return HardnessOut(shore_a=None, message="no hardness in the table resists this gap: fit a backup ring")
    return HardnessOut(shore_a=grade, message=f"{grade} Shore A resists this gap without a backup ring")


class LubricantBody(Body):
    """``lubricant``: a key of the list, or a word it goes by. ``fluid``: what the seal works in."""

    lubricant: NameText = Field(examples=["lithium_grease"])
    compound: NameText = Field(examples=["EPDM"])
    fluid: NameText | None = Field(default=None, examples=["mineral oil ISO VG 46"])
    duty: Duty = Duty.GENERAL
    packing_set: bool = False


class LubricantOut(BaseModel):
    lubricant: Lubricant
    verdict: Literal["good", "caution", "reject"]
    findings: list[FindingOut]


class ListedLubricantOut(BaseModel):
    """A lubricant of the list. ``duties``: those it is listed for by its kind; ``attacks``: compounds it may not touch."""

    key: Lubricant
    name: str
    base: str
    thickener: str
    duties: list[Duty]
    attacks: list[str]
    never_in: list[Duty]
    silicone_free: bool
    on_seals: bool
    gaskets_only: bool
    note: str


@router.get("/lubricants", summary="The list of lubricants")
def listed_lubricants() -> list[ListedLubricantOut]:
    return [
        ListedLubricantOut(
            key=key,
            name=facts.name,
            base=facts.base,
            thickener=facts.thickener,
            duties=sorted(facts.listed_for),
            attacks=sorted(facts.attacks),
            never_in=sorted(facts.never_in),
            silicone_free=facts.silicone_free,
            on_seals=facts.on_seals,
            gaskets_only=facts.gaskets_only,
            note=facts.note,
        )
        for key, facts in LUBRICANTS.items()
    ]


class ListedCleanerOut(BaseModel):
    """A cleaner of the list. ``lifts``: the soils it is for; ``refused``: why it is not for the bench at all."""

    key: Cleaner
    name: str
    lifts: list[str]
    attacks: list[str]
    never_in: list[Duty]
    flammable: bool
    hazard: str
    after: str
    refused: str


@router.get("/cleaners", summary="The list of cleaners")
def listed_cleaners() -> list[ListedCleanerOut]:
    return [
        ListedCleanerOut(
            key=key,
            name=facts.name,
            lifts=sorted(facts.lifts),
            attacks=sorted(facts.attacks),
            never_in=sorted(facts.never_in),
            flammable=facts.flammable,
            hazard=facts.hazard,
            after=facts.after,
            refused=facts.refused,
        )
        for key, facts in CLEANERS.items()
    ]


@router.post("/compounds/lubricant", summary="Whether a lubricant suits a compound")
def lubricant(body: LubricantBody, session: DbSession) -> LubricantOut:
    read = Collector()
    columns = (
        []
        if body.fluid is None
        else [read.get(lambda text, field: medium_of(text, media(), field), body.fluid, "fluid")]
    )
    own = own_lubricants(session)
    key = read.get(lambda text, field: find_lubricant(text, field, own), body.lubricant, "lubricant")
    compound = read.get(lambda text, field: find_compound(text, compounds(), field), body.compound, "compound")
    read.done()
    found = check_lubricant(key, compound, columns, duty=body.duty, packing_set=body.packing_set)
    return LubricantOut(lubricant=key, verdict=verdict_of(found), findings=findings_out(found))
