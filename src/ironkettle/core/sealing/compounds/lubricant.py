"""Which lubricant may touch which compound, and where none but a listed one may go."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ironkettle.core.base.findings import Finding, Severity, caution, info, reject
from ironkettle.core.sealing.compounds.advise import DUTY_BASIS, WORDS
from ironkettle.core.sealing.compounds.lubricants import LUBRICANTS, Lubricant, LubricantFacts
from ironkettle.core.sealing.compounds.model import BASIS, Compound, Duty, Rating

PACKING_BASIS = "shop rule: grease holds a packing set apart and hides its leak"
LIST_BASIS = "list of lubricants; the tin and the maker's drawing win"
# What is breathed, drunk or burns near oxygen takes listed lubricants alone: no reason overrules that.
STRICT = frozenset({Duty.BREATHING, Duty.OXYGEN, Duty.POTABLE})
# What a base is rated as in the compatibility table, by whether it is a grease.
_COLUMN = {
    ("mineral", False): "mineral_hydraulic_oil", ("mineral", True): "mineral_grease",
    ("silicone (PDMS)", True): "silicone_grease", ("perfluoropolyether", True): "pfpe_grease",
}  # fmt: skip


def lubricant_column(lubricant: Lubricant) -> str | None:
    """The column of the compatibility table a lubricant is rated in; None for dry, and for the fluid of the unit itself.

    Source: reference/tables/compatibility.csv.
    """
    facts = LUBRICANTS[lubricant]
    return _COLUMN.get((facts.base, facts.is_grease))


def check_lubricant(
    lubricant: Lubricant,
    compound: Compound | None,
    media: Sequence[str] = (),
    *,
    duty: Duty = Duty.GENERAL,
    packing_set: bool = False,
    gasket: bool = True,
) -> tuple[Finding, ...]:
    """What speaks against fitting a seal with a lubricant; nothing when all is well.

    Parameters
    ----------
    lubricant : what is put on.
    compound : what the seal is made of; None where that is not known, then only duty and place are judged.
    media : columns of the compatibility table the seal works in, for ``service_fluid``.
    duty : near oxygen, for breathing air and potable water only what is listed for it; for food nothing that is barred from it.
    packing_set : V-packing and stuffing-box sets are oiled, not greased.
    gasket : whether it is a flat gasket, on which alone a gasket sealant may lie.

    Source: reference/tables/compatibility.csv, the list of lubricants (lubricants.py) and the shop rules named in the findings.
    """
    facts = LUBRICANTS[lubricant]
    found = list(_duty(lubricant, facts, duty))
    if compound is not None:
        found += _touched(lubricant, facts, compound, media)
    if not facts.on_seals:
        found.append(reject("not-on-seals", f"{facts.name}: {facts.note}; it does not belong on a seal", LIST_BASIS))
    if facts.gaskets_only and not gasket:
        found.append(reject("not-on-seals", f"{facts.name}: {facts.note}", LIST_BASIS))
    if packing_set and facts.is_grease and facts.on_seals:
        found.append(reject("packing-greased", f"{facts.name} on a packing set: use oil, not grease", PACKING_BASIS))
    if lubricant is Lubricant.DRY and duty is Duty.GENERAL:
        found.append(info("dry", "fitted dry: only where the maker says so; a dry ring rolls and tears", DUTY_BASIS))
    return tuple(found)


def _touched(
    lubricant: Lubricant, facts: LubricantFacts, compound: Compound, media: Sequence[str]
) -> Iterator[Finding]:
    """What it does to the compound: as the list says, else as the table rates what it is made of."""
    if compound.name in facts.attacks:
        text = f"{facts.name} on {compound.name}: {WORDS[Rating.DO_NOT_USE]}"
        yield reject("lubricant", text, f"{LIST_BASIS}; {BASIS}")
        return
    column = lubricant_column(lubricant)
    columns = list(media) if lubricant is Lubricant.SERVICE_FLUID else [] if column is None else [column]
    for rated in columns:
        rating = compound.ratings[rated]
        text = f"{facts.name} on {compound.name}: {WORDS[rating]}"
        if rating is Rating.DO_NOT_USE:
            yield reject("lubricant", text, BASIS)
        elif rating is not Rating.GOOD:
            yield caution("lubricant", text, BASIS)


def _duty(lubricant: Lubricant, facts: LubricantFacts, duty: Duty) -> Iterator[Finding]:
    if duty is Duty.GENERAL or lubricant is Lubricant.DRY:
        return
    if duty in facts.never_in or (duty in STRICT and duty not in facts.listed_for):
        code = "burns" if duty is Duty.OXYGEN else "not-listed"
        why = "it can burn near oxygen" if duty is Duty.OXYGEN else f"it is not listed for {duty.value} service"
        yield reject(code, f"{facts.name}: {why}; only a listed lubricant, or dry", DUTY_BASIS)
    elif lubricant is not Lubricant.SERVICE_FLUID:
        yield caution("listed-only", f"{facts.name} only from a tin whose label lists it for {duty.value}", DUTY_BASIS)


def refusals(findings: Sequence[Finding]) -> tuple[Finding, ...]:
    """The findings that forbid it."""
    return tuple(finding for finding in findings if finding.severity is Severity.REJECT)
