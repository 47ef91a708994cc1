"""The shop's own limits and priors: one typed list of name, shipped value, range and help."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields
from functools import cached_property

from ironkettle.core.base.errors import FieldFault, RuleError, fault
from ironkettle.core.base.quantities import OFFERED, Dimension
from ironkettle.core.machine.pressure import HoldRules
from ironkettle.core.sealing.grooves.model import Band, GrooveLimits
from ironkettle.core.sealing.rings import (
    AS568,
    DEFAULT_PRIOR,
    DEFAULT_UNCERTAINTY_MM,
    ISO_3601,
    JIS_B_2401,
    METRIC_STOCK,
    SERIES,
)
from ironkettle.core.shop.settings.limits import PART_LIMITS, PartLimit
from ironkettle.core.shop.settings.practice import BY_KEY, PRACTICE_OPTIONS, Held, PracticeOption


@dataclass(frozen=True, slots=True)
class ShopSetting:
    """One figure a shop may set. ``low`` and ``high`` bound it; ``unit`` is [-] where there is none.

    ``choices``: the figure is the place of one of these words.
    """

    key: str
    group: str
    name: str
    unit: str
    shipped: float
    low: float
    high: float
    help: str
    choices: tuple[str, ...] = ()


_SHIPPED = GrooveLimits()
_SQUEEZE, _SEAT, _PRIOR, _READING = "Squeeze", "Seat", "Which series a ring is likely to be from", "Measuring"
_USUAL = "usual handbook value"
_HOLD = "Pressure tests"
_HELD = HoldRules()
_BARE = "A number without a unit is in"


def _hold(key: str, name: str, unit: str, low: float, high: float, help_: str) -> ShopSetting:
    return ShopSetting(f"hold_{key}", _HOLD, name, unit, getattr(_HELD, key), low, high, help_)


def _bare(dimension: Dimension, name: str) -> ShopSetting:
    """What a number without a unit means on a field of this kind, until the field's own button says otherwise."""
    offered = OFFERED[dimension]
    help_ = "unless another unit is chosen at the field; the unit always stands beside the number"
    return ShopSetting(f"unit_{dimension}", _BARE, name, "", 0, 0, len(offered) - 1, help_, offered)


def _band(key: str, name: str, band: Band) -> tuple[ShopSetting, ShopSetting]:
    return (
        ShopSetting(f"{key}_low", _SQUEEZE, f"{name}, minimum", "%", band.low, 0, 60, _USUAL),
        ShopSetting(f"{key}_high", _SQUEEZE, f"{name}, maximum", "%", band.high, 0, 60, _USUAL),
    )


def _prior(key: str, series: str, name: str) -> ShopSetting:
    return ShopSetting(
        f"prior_{key}", _PRIOR, name, "weight", DEFAULT_PRIOR[series], 0, 1, "weights are shared out to 1 when used"
    )


def _limit(limit: PartLimit) -> ShopSetting:
    group, help_ = (
        f"Limits of inspection, {limit.family}s",
        "usual value; a sheet's own limit and the maker's drawing win",
    )
    return ShopSetting(limit.rule, group, limit.name, "mm", limit.most, 0.001, 5, help_)


def _practice(option: PracticeOption) -> ShopSetting:
    help_ = "; ".join(f"{way.words}: {way.why}" for way in option.ways)
    return ShopSetting(
        option.rule,
        "Practice options",
        option.name,
        "",
        0,
        0,
        len(option.ways) - 1,
        help_,
        tuple(w.words for w in option.ways),
    )


SHOP_SETTINGS: tuple[ShopSetting, ...] = (
    *_band("squeeze_static", "Static", _SHIPPED.squeeze_static),
    *_band("squeeze_reciprocating", "Reciprocating, liquid", _SHIPPED.squeeze_reciprocating),
    *_band("squeeze_pneumatic", "Reciprocating, gas", _SHIPPED.squeeze_pneumatic),
    *_band("squeeze_rotary", "Rotary", _SHIPPED.squeeze_rotary),
    ShopSetting("stretch_low", _SEAT, "Stretch, minimum", "%", _SHIPPED.stretch.low, -5, 20, _USUAL),
    ShopSetting("stretch_high", _SEAT, "Stretch, maximum", "%", _SHIPPED.stretch.high, 0, 30, _USUAL),
    ShopSetting("fill_nominal_max", _SEAT, "Fill, nominal", "%", _SHIPPED.fill_nominal_max, 50, 100, _USUAL),
    ShopSetting("fill_worst_max", _SEAT, "Fill, worst case below", "%", _SHIPPED.fill_worst_max, 60, 105, _USUAL),
    ShopSetting(
        "rod_ring_oversize_max",
        _SEAT,
        "Ring larger than its rod or face groove",
        "%",
        _SHIPPED.rod_ring_oversize_max,
        0,
        10,
        "outside diameter over the groove; more and the ring buckles",
    ),
    ShopSetting(
        "backup_pressure_factor",
        _SEAT,
        "Backup ring: pressure over that of a 90 Shore ring",
        "times",
        _SHIPPED.backup_pressure_factor,
        1,
        6,
        "shop estimate for PTFE in the same gap; the maker's figure wins",
    ),
    _prior("as568", AS568, "AS568 (inch)"),
    _prior("iso3601", ISO_3601, "ISO 3601-1 (metric)"),
    _prior("metric_stock", METRIC_STOCK, "Common metric stock"),
    _prior("jisb2401", JIS_B_2401, "JIS B 2401"),
    ShopSetting(
        "uncertainty",
        _READING,
        "Caliper on rubber, by default",
        "mm",
        DEFAULT_UNCERTAINTY_MM,
        0.005,
        1,
        "half-width that holds 95 of 100 readings; soft diameters count with at least 0.3 % of themselves",
    ),
    _hold("start_below_pct", "A hold may start below the test pressure by", "%", 0, 5, "plus the gauge's uncertainty"),
    _hold(
        "band_pct",
        "Readings count down to this far below the test pressure",
        "%",
        2,
        30,
        "lower readings are not judged",
    ),
    _hold(
        "stated_least", "True bulk modulus down to, of the one stated", "times", 0.2, 1, "air and hoses make it softer"
    ),
    _hold(
        "nominal_least", "True bulk modulus down to, of the fluid's nominal", "times", 0.1, 1, "where none is stated"
    ),
    _hold("modulus_most", "True bulk modulus up to, of the one stated", "times", 1, 1.5, "hardly more"),
    _hold("volume_doubt_pct", "Test volume known to ±", "%", 0.5, 30, "unless stated"),
    _hold("drift_k_per_min", "Without a thermometer a drift is assumed of", "K/min", 0, 2, "counts as uncertainty"),
    _hold("drift_most_k", "That drift ends at", "K", 0, 20, "a room does not warm for ever"),
    _hold("settling_pct", "Settling may take off a fail", "%", 0, 5, "of the pressure; it never helps a pass"),
    _hold("sensor_lag_s", "Lag of the thermometer", "s", 0, 600, "its reading is this old"),
    _hold("least_hold_s", "Shortest hold", "s", 10, 3600, "no pass before"),
    _hold("drop_ml", "One drop counted at a fitting is", "ml", 0.01, 0.2, "usual 0.03 to 0.07 ml by fluid and edge"),
    _hold("gas_energy_j", "Gas tests are refused above", "J", 10, 100_000, "energy stored in the test volume"),
    _bare(Dimension.LENGTH, "Lengths"),
    _bare(Dimension.PRESSURE, "Pressures"),
    _bare(Dimension.TORQUE, "Torques"),
    _bare(Dimension.TEMPERATURE, "Temperatures"),
    *(_limit(limit) for limit in PART_LIMITS),
    *(_practice(practice_option) for practice_option in PRACTICE_OPTIONS),
    ShopSetting(
        "shift_hours", "People", "A device stays signed in for", "h", 12, 1, 24, "a shift; then the PIN is asked again"
    ),
)
_BY_KEY = {rule.key: rule for rule in SHOP_SETTINGS}
_PAIRS = [(rule.key, f"{rule.key[:-4]}_high") for rule in SHOP_SETTINGS if rule.key.endswith("_low")]


@dataclass(frozen=True)
class ShopSettings:
    """All shop settings in force: the shipped values, with the shop's own in their place."""

    own: Mapping[str, float]

    def value(self, key: str) -> float:
        return self.own.get(key, _BY_KEY[key].shipped)

    @cached_property
    def limits(self) -> GrooveLimits:
        """The limits of the groove check. [%]"""
        bands = {name: Band(self.value(f"{name}_low"), self.value(f"{name}_high")) for name in _BAND_NAMES}
        return GrooveLimits(
            **bands,
            fill_nominal_max=self.value("fill_nominal_max"),
            fill_worst_max=self.value("fill_worst_max"),
            rod_ring_oversize_max=self.value("rod_ring_oversize_max"),
            backup_pressure_factor=self.value("backup_pressure_factor"),
        )

    @cached_property
    def prior(self) -> dict[str, float]:
        """Weight of each series, adding up to 1. [-]"""
        keys = {AS568: "as568", ISO_3601: "iso3601", METRIC_STOCK: "metric_stock", JIS_B_2401: "jisb2401"}
        weights = {series: self.value(f"prior_{keys[series]}") for series in SERIES}
        total = sum(weights.values())
        return {series: weight / total for series, weight in weights.items()}

    @property
    def uncertainty(self) -> float:
        """Half-width of a caliper reading on rubber when nothing is said. [mm]"""
        return self.value("uncertainty")

    @cached_property
    def hold_rules(self) -> HoldRules:
        """The rules of judging a pressure hold. [%, s, K, J]"""
        return HoldRules(**{field.name: self.value(f"hold_{field.name}") for field in fields(HoldRules)})

    @property
    def units(self) -> dict[str, str]:
        """What a number without a unit is in, by dimension."""
        return {
            dimension.value: offered[int(self.value(f"unit_{dimension}")) if f"unit_{dimension}" in _BY_KEY else 0]
            for dimension, offered in OFFERED.items()
        }

    @cached_property
    def practice(self) -> dict[str, Held]:
        """Every practice option as this shop has chosen it, by key."""
        held = {}
        for option in PRACTICE_OPTIONS:
            at = int(self.value(option.rule))
            others = tuple(way for place, way in enumerate(option.ways) if place != at)
            held[option.key] = Held(option, option.ways[at], others)
        return held

    def follows(self, option: str, way: int) -> bool:
        """Whether the shop follows that way of a practice option; 0 is the careful one."""
        return int(self.value(BY_KEY[option].rule)) == way

    def most(self, limit: PartLimit) -> float:
        """The most that is allowed by a limit of inspection. [mm]"""
        return self.value(limit.rule)

    @property
    def shift_hours(self) -> float:
        """How long a device stays signed in. [h]"""
        return self.value("shift_hours")

    def changed(self, key: str, value: float) -> ShopSettings:
        """These rules with one changed. Raises RuleError when the value does not fit.

        Refused: an unknown key, a value outside its range, a band whose least is not below its
        most, and series that all have no weight.
        """
        rule = _BY_KEY.get(key)
        if rule is None:
            raise fault("key", f"“{key}” is not a shop setting", *_BY_KEY)
        if rule.choices and value != int(value):
            raise fault("value", f"{value:g} is none of the choices of {rule.name}", *rule.choices)
        if not rule.low <= value <= rule.high:
            raise fault("value", f"{value:g} {rule.unit} does not fit {rule.name}", f"{rule.low:g} to {rule.high:g}")
        settings = ShopSettings({**self.own, key: value})
        faults = [
            FieldFault("value", f"{settings.value(low):g} is not below {settings.value(high):g} ({_BY_KEY[key].name})")
            for low, high in _PAIRS
            if key in (low, high) and settings.value(low) >= settings.value(high)
        ]
        if not any(
            settings.value(shop_setting.key) > 0 for shop_setting in SHOP_SETTINGS if shop_setting.group == _PRIOR
        ):
            faults.append(FieldFault("value", "at least one series must keep a weight", ("above 0",)))
        if faults:
            raise RuleError(faults)
        return settings

    def reset(self, key: str) -> ShopSettings:
        """These rules with one back at its shipped value; refused as ``changed`` would."""
        rule = _BY_KEY.get(key)
        if rule is None:
            raise fault("key", f"“{key}” is not a shop setting", *_BY_KEY)
        return ShopSettings({k: v for k, v in self.changed(key, rule.shipped).own.items() if k != key})


_BAND_NAMES = ("squeeze_static", "squeeze_reciprocating", "squeeze_pneumatic", "squeeze_rotary", "stretch")
