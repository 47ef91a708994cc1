"""Which lubricant may touch which compound, and where none but a listed one may go."""

from __future__ import annotations

from collections.abc import Sequence

from ironkettle.core.base.findings import Finding, caution, info, reject
from ironkettle.core.sealing.compounds.advise import DUTY_BASIS, WORDS
from ironkettle.core.sealing.compounds.model import BASIS, Compound, Duty, Lubricant, Rating

PACKING_BASIS = "shop rule: grease holds a packing set apart and hides its leak"
_COLUMN = {
    Lubricant.MINERAL_OIL: "mineral_hydraulic_oil",
    Lubricant.MINERAL_GREASE: "mineral_grease",
    Lubricant.SILICONE_GREASE: "silicone_grease",
    Lubricant.PFPE_GREASE: "pfpe_grease",
}


def lubricant_column(lubricant: Lubricant) -> str | None:
    """The column of the compatibility table a lubricant is rated in; None for dry, and for the fluid of the unit itself.

    Source: reference/tables/compatibility.csv.
    """
    return _COLUMN.get(lubricant)


_GREASES = {Lubricant.MINERAL_GREASE, Lubricant.SILICONE_GREASE, Lubricant.PFPE_GREASE}
_NEVER_IN_FOOD = {Lubricant.MINERAL_OIL, Lubricant.MINERAL_GREASE}


def check_lubricant(
    lubricant: Lubricant,
    compound: Compound,
    media: Sequence[str] = (),
    *,
    duty: Duty = Duty.GENERAL,
    packing_set: bool = False,
) -> tuple[Finding, ...]:
    """What speaks against fitting a compound with a lubricant; nothing when all is well.

    Parameters
    ----------
    lubricant : what is put on.
    compound : what the seal is made of.
    media : what the seal works in, for ``service_fluid``.
    duty : near oxygen nothing that burns; breathing, food and potable water only listed lubricants.
    packing_set : V-packing and stuffing-box sets are oiled, not greased.

    Source: reference/tables/compatibility.csv and the shop rules named in the findings.
    """
    name = lubricant.value.replace("_", " ")
    found: list[Finding] = []
    columns = (
        list(media) if lubricant is Lubricant.SERVICE_FLUID else [_COLUMN[lubricant]] if lubricant in _COLUMN else []
    )
    for column in columns:
        rating = compound.ratings[column]
        text = f"{name} on {compound.name}: {WORDS[rating]}"
        if rating is Rating.DO_NOT_USE:
            found.append(reject("lubricant", text, BASIS))
        elif rating is not Rating.GOOD:
            found.append(caution("lubricant", text, BASIS))
    found += _duty(lubricant, name, duty)
    if packing_set and lubricant in _GREASES:
        found.append(reject("packing-greased", f"{name} on a packing set: use oil, not grease", PACKING_BASIS))
    if lubricant is Lubricant.DRY and duty is Duty.GENERAL:
        found.append(info("dry", "fitted dry: only where the maker says so; a dry ring rolls and tears", DUTY_BASIS))
    return tuple(found)


def _duty(lubricant: Lubricant, name: str, duty: Duty) -> list[Finding]:
    if duty is Duty.GENERAL or lubricant is Lubricant.DRY:
        return []
    where = duty.value.replace("_", " ")
    if duty is Duty.OXYGEN and lubricant is not Lubricant.PFPE_GREASE:
        return [reject("burns", f"{name} can burn near oxygen: only PFPE grease listed for oxygen, or dry", DUTY_BASIS)]
    if lubricant in _NEVER_IN_FOOD or (lubricant is Lubricant.SERVICE_FLUID and duty is Duty.BREATHING):
        return [reject("not-listed", f"{name} is not for {where} service: only a listed lubricant", DUTY_BASIS)]
    if lubricant is Lubricant.SERVICE_FLUID:
        return []
    return [caution("listed-only", f"{name} only from a tin whose label lists it for {where}", DUTY_BASIS)]
