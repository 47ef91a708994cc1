"""POST /api/failures/diagnose: why a seal failed, from what is seen and what is known."""

from __future__ import annotations

from fastapi import APIRouter
from pydantic import BaseModel, Field

from ironkettle.api.base.deps import SettingsInForce
from ironkettle.api.base.problems import ERROR_RESPONSES
from ironkettle.api.base.schemas import Body, Collector, NameText, SpeedText, TemperatureText
from ironkettle.api.sealing.grooves import GlandCheckBody, ring_of
from ironkettle.core.base.quantities import read_speed, read_temperature
from ironkettle.core.base.text import Figure
from ironkettle.core.sealing.catalogue import KINDS, ElementKind
from ironkettle.core.sealing.compounds import Lubricant, find_compound, medium_of
from ironkettle.core.sealing.failures import Cause, Circumstances, Diagnosed, Faced, Sign, diagnose
from ironkettle.core.sealing.grooves import check_gland
from ironkettle.core.sheets.document.places import StationMotion
from ironkettle.reference import compounds, failure_table, media
from ironkettle.store.shop.tables import gland_tables

router = APIRouter(prefix="/api/failures", tags=["failures"], responses=ERROR_RESPONSES)

_GASES = frozenset({"dry_air", "lubricated_air"})


class DiagnoseBody(Body):
    """What was seen on a seal and what is known of it; what is not known is left out or null."""

    element: ElementKind = Field(examples=["o_ring"])
    signs: list[Sign] = Field(max_length=len(Sign), examples=[["nibbled_low_side"]])
    motion: StationMotion | None = None
    gland: GlandCheckBody | None = None
    faced: NameText | None = None
    must_face: NameText | None = None
    fluid: NameText | None = None
    compound: NameText | None = None
    lubricant: Lubricant | None = None
    temperature: TemperatureText | None = None
    speed: SpeedText | None = None
    years: Figure | None = Field(default=None, ge=0, le=100)

    def circumstances(self, settings: SettingsInForce) -> Circumstances:
        """For the core. Raises RuleError with every fault."""
        read = Collector()
        temperature = read.get(read_temperature, self.temperature, "temperature")
        speed = read.get(read_speed, self.speed, "speed")
        compound = read.get(lambda text, field: find_compound(text, compounds(), field), self.compound, "compound")
        medium = read.get(lambda text, field: medium_of(text, media(), field), self.fluid, "fluid")
        gland = read.get(lambda body, field: body.gland(f"{field}."), self.gland, "gland")
        ring = read.get(lambda body, field: ring_of(body.ring, f"{field}.ring"), self.gland, "gland")
        read.done()
        check = check_gland(gland, ring, gland_tables(settings)) if gland is not None and ring is not None else None
        faced = None
        if self.faced is not None and self.must_face is not None:
            faced = Faced(self.faced, self.must_face, self.faced, self.must_face)
        return Circumstances(
            self.element,
            tuple(self.signs),
            None if self.motion is None else self.motion.value,
            gland,
            check,
            faced,
            medium,
            None if medium is None else medium in _GASES,
            compound,
            temperature,
            speed,
            self.years,
            lubricant=self.lubricant,
        )


class CorrectionOut(BaseModel):
    key: str
    text: str


class CauseOut(BaseModel):
    """``share``: of all causes, which add up to 1. ``for`` and ``against``: the evidence in words."""

    key: Cause
    name: str
    share: float
    speaks_for: list[str] = Field(alias="for", serialization_alias="for")
    against: list[str]
    corrections: list[CorrectionOut]

    @classmethod
    def of(cls, diagnosed: Diagnosed) -> CauseOut:
        reasons = {"for": list(diagnosed.speaks_for), "against": list(diagnosed.speaks_against)}
        corrections = [CorrectionOut(key=c.key, text=c.text) for c in diagnosed.corrections]
        return cls(key=diagnosed.cause, name=diagnosed.name, share=diagnosed.share, corrections=corrections, **reasons)


class DiagnosisOut(BaseModel):
    causes: list[CauseOut]
    basis: str = "this application's own table of signs and causes, with the groove calculation; a guide: the person holding the seal decides"


class SignOut(BaseModel):
    key: Sign
    says: str


class ElementOut(BaseModel):
    """A kind of element and the signs that may be seen on it, *nothing* first, then the likeliest."""

    key: ElementKind
    name: str
    signs: list[SignOut]


@router.get("/elements", summary="The signs that can be seen on each kind of removed seal")
def elements() -> list[ElementOut]:
    table = failure_table()
    return [
        ElementOut(
            key=kind,
            name=facts.name,
            signs=[SignOut(key=offer.sign, says=offer.sign.words) for offer in table.offered[kind]],
        )
        for kind, facts in KINDS.items()
    ]


@router.post("/diagnose", summary="Why it failed: causes ranked, with the evidence for and against each")
def diagnose_failure(body: DiagnoseBody, settings: SettingsInForce) -> DiagnosisOut:
    found = diagnose(body.circumstances(settings), failure_table())
    return DiagnosisOut(causes=[CauseOut.of(diagnosed) for diagnosed in found])
