"""Read the CSV tables shipped with the application into the core's types, once per process."""

from __future__ import annotations

import csv
from functools import cache
from pathlib import Path

from ironkettle.core.jobs import Tables
from ironkettle.core.machine.parts import Cleaning
from ironkettle.core.machine.pressure import Fluid
from ironkettle.core.machine.tightening import BoltStrength, FastenerTables, NutFactor, Tapped, Thread
from ironkettle.core.sealing.catalogue import Group
from ironkettle.core.sealing.compounds import Compound, Rating
from ironkettle.core.sealing.failures import Cause, CauseFacts, Correction, FailureTable, Sign, SignFacts, Weight
from ironkettle.core.sealing.grooves import ExtrusionLimit, GlandRow, GlandTables, GrooveLimits
from ironkettle.core.sealing.rings import AS568, ISO_3601, JIS_B_2401, RingSize, RingTable, metric_stock
from ironkettle.core.sealing.seals import HousingRow, SealKind, SealSide, SealSize, standard_seals

_TABLES = Path(__file__).parent / "tables"
_INCH = 25.4


def _rows(name: str) -> list[dict[str, str]]:
    with (_TABLES / name).open(encoding="utf-8", newline="") as file:
        return list(csv.DictReader(file))


@cache
def ring_table() -> RingTable:
    """Every ring size known: AS568, ISO 3601-1, JIS B 2401, and metric stock made by rule."""
    inch = tuple(
        RingSize(
            AS568,
            row["dash"],
            float(row["id_in"]) * _INCH,
            float(row["id_tol_in"]) * _INCH,
            float(row["cs_in"]) * _INCH,
            float(row["cs_tol_in"]) * _INCH,
            "SAE AS568",
            "",
        )
        for row in _rows("oring_as568.csv")
    )
    iso = _metric("oring_iso3601_metric.csv", ISO_3601, "ISO 3601-1", "sizes as published, tolerance by its formula")
    jis = _metric(
        "oring_jisb2401.csv", JIS_B_2401, "JIS B 2401", "sizes as published, tolerance estimated", estimated=True
    )
    return RingTable(inch + iso + jis + metric_stock())


def _metric(name: str, series: str, source: str, sure: str, *, estimated: bool = False) -> tuple[RingSize, ...]:
    return tuple(
        RingSize(
            series,
            row["designation"],
            float(row["id_mm"]),
            float(row["id_tol_mm"]),
            float(row["cs_mm"]),
            float(row["cs_tol_mm"]),
            source,
            sure,
            estimated,
        )
        for row in _rows(name)
    )


@cache
def extrusion_limits() -> tuple[ExtrusionLimit, ...]:
    """Largest radial gap by hardness, pressure and section."""
    return tuple(
        ExtrusionLimit(
            int(row["hardness_shore_a"]),
            float(row["pressure_max_mpa"]),
            float(row["cs_over_mm"]),
            float(row["cs_up_to_mm"]),
            float(row["radial_gap_max_mm"]),
        )
        for row in _rows("extrusion_gap_mm.csv")
    )


@cache
def gland_rows() -> tuple[GlandRow, ...]:
    """Usual inch groove sizes, converted to mm."""

    def mm(text: str) -> float | None:
        return float(text) * _INCH if text else None

    def must(text: str) -> float:
        return float(text) * _INCH

    return tuple(
        GlandRow(
            row["use"],
            must(row["cs_in"]),
            must(row["depth_min_in"]),
            must(row["depth_max_in"]),
            float(row["squeeze_min_pct"]),
            float(row["squeeze_max_pct"]),
            must(row["clearance_min_in"]),
            must(row["clearance_max_in"]),
            must(row["width_no_backup_in"]),
            mm(row["width_one_backup_in"]),
            mm(row["width_two_backups_in"]),
            must(row["width_tol_in"]),
            must(row["corner_radius_min_in"]),
            must(row["corner_radius_max_in"]),
        )
        for row in _rows("gland_inch.csv")
    )


@cache
def threads() -> tuple[Thread, ...]:
    """Metric, unified and pipe threads: nominal diameter and pitch."""
    return tuple(
        Thread(
            row["thread"],
            float(row["major_diameter_mm"]),
            float(row["pitch_mm"]),
            unified=row["series"].startswith("UN"),
        )
        for row in _rows("threads.csv")
    )


@cache
def tapped_materials() -> tuple[Tapped, ...]:
    """What threads are tapped into: shear strength, and whether it is soft. Guidance, to be overruled."""
    return tuple(
        Tapped(row["material"], float(row["shear_mpa"]), row["soft"] == "1") for row in _rows("tapped_shear.csv")
    )


@cache
def nut_factors() -> tuple[NutFactor, ...]:
    """Torque coefficient K by condition of the thread."""
    return tuple(
        NutFactor(
            row["condition"],
            float(row["k_nominal"]),
            float(row["k_low"]),
            float(row["k_high"]),
            tuple(row["also"].split("|")),
        )
        for row in _rows("nut_factor.csv")
    )


@cache
def bolt_strengths() -> tuple[BoltStrength, ...]:
    """Proof stress by property class and diameter."""
    return tuple(
        BoltStrength(
            row["standard"],
            row["grade"],
            float(row["diameter_over_mm"]),
            float(row["diameter_up_to_mm"]),
            float(row["proof_mpa"]),
        )
        for row in _rows("bolt_strength.csv")
    )


@cache
def compounds() -> tuple[Compound, ...]:
    """Compound families: temperatures and rating by medium."""
    return tuple(
        Compound(
            row["material"],
            float(row["temp_min_c"]),
            float(row["temp_max_c"]),
            {medium: Rating(int(row[medium])) for medium in media()},
        )
        for row in _rows("compatibility.csv")
    )


@cache
def media() -> tuple[str, ...]:
    """The media of the compatibility table, in its order."""
    return tuple(_rows("compatibility.csv")[0])[3:]


@cache
def seal_sizes() -> tuple[SealSize, ...]:
    """Lip seals, wipers, slide rings and wear bands made by rule from the standard housings."""
    series = {row["what"]: [float(size) for size in row["sizes_mm"].split()] for row in _rows("cylinder_series_mm.csv")}
    housings = []
    for row in _rows("housing_sections_mm.csv"):
        standard = row["standard"]
        for length in ("groove_length_short_mm", "groove_length_mm"):
            if row[length]:
                section = float(row["radial_section_mm"])
                source = f"{standard}, {'unverified' if 'unverified' in row['note'] else 'nominal'}"
                side = SealSide(row["side"]) if row["side"] else None
                housings.append(HousingRow(standard, _HOUSED[standard], section, float(row[length]), source, side))
    return standard_seals(series["rod"], series["bore"], housings)


_HOUSED = {
    "ISO 5597": SealKind.LIP_SEAL,
    "ISO 7425": SealKind.SLIDE_RING,
    "ISO 6195 A": SealKind.WIPER,
}


@cache
def fluids() -> tuple[Fluid, ...]:
    """Nominal properties of fluids: modulus at 20 °C, expansion over temperature."""
    expansion: dict[str, tuple[tuple[float, float], ...]] = {}
    for row in _rows("fluid_expansion.csv"):
        point = (float(row["temperature_c"]), float(row["expansion_per_k"]))
        expansion[row["fluid"]] = (*expansion.get(row["fluid"], ()), point)

    def number(text: str) -> float | None:
        return float(text) if text else None

    return tuple(
        Fluid(
            row["fluid"],
            row["kind"] == "gas",
            number(row["bulk_modulus_gpa"]),
            expansion.get(row["fluid"], ()),
        )
        for row in _rows("fluids.csv")
    )


@cache
def failure_table() -> FailureTable:
    """Signs against causes, how common each cause is, and what puts it right."""
    corrections: dict[str, list[Correction]] = {}
    for row in _rows("failure_corrections.csv"):
        corrections.setdefault(row["cause"], []).append(Correction(row["correction"], row["text"], row["when"]))
    causes = {
        Cause(row["cause"]): CauseFacts(
            Cause(row["cause"]),
            row["name"],
            row["customer"],
            {group: float(row[group]) for group in Group},
            {motion: float(row[motion]) for motion in ("static", "reciprocating", "rotary")},
            tuple(corrections[row["cause"]]),
        )
        for row in _rows("failure_causes.csv")
    }
    signs = {
        Sign(row["sign"]): SignFacts(Sign(row["sign"]), {cause: Weight(row[cause]) for cause in Cause})
        for row in _rows("failure_signs.csv")
    }
    return FailureTable(signs, causes)


@cache
def cleaning() -> tuple[Cleaning, ...]:
    """How materials are cleaned of soils."""
    return tuple(
        Cleaning(row["material"], row["soil"], row["cleaner"], row["how"], float(row["soak_min"]), row["never"])
        for row in _rows("cleaning.csv")
    )


@cache
def fastener_tables() -> FastenerTables:
    """What the tightening rules look up."""
    return FastenerTables(threads(), nut_factors(), bolt_strengths(), tapped_materials())


@cache
def shipped_tables() -> Tables:
    """What the rules of a job look up, with the shipped shop settings."""
    glands = GlandTables(extrusion_limits(), gland_rows(), GrooveLimits(), compounds())
    return Tables(ring_table(), fluids(), glands, failure_table(), fastener_tables(), cleaning())
