"""The gauge of a test: which one is proposed, and whether the one that was used could read it."""

from __future__ import annotations

from collections.abc import Sequence

from ironkettle.core.base.errors import fault
from ironkettle.core.base.quantities import read_gauge_pressure
from ironkettle.core.jobs.case import Case
from ironkettle.core.jobs.figure_tests import FigureTest
from ironkettle.core.jobs.judging import planned_hold
from ironkettle.core.jobs.runs import GaugeUsed, SampleRead
from ironkettle.core.sheets.document.trials import HoldTest

# The gauge a trace is asked for on where the shop's list has none: a tenth of a bar in 250 bar.
USUAL_GAUGE = GaugeUsed(name="Digital gauge 250 bar", range="250 bar", resolution="0.1 bar", accuracy_pct=0.5)


def check_gauge(case: Case, spec: HoldTest, gauge: GaugeUsed) -> None:
    """Whether a hold may be read on this gauge. Raises RuleError naming the field where its range is too short or its figures are not those of the shop's list."""
    if read_gauge_pressure(gauge.range, "gauge.range") < spec.pressure.value:
        raise fault("gauge.range", f"{gauge.range} does not reach the test pressure", f"{spec.pressure} or more")
    if read_gauge_pressure(gauge.resolution, "gauge.resolution") <= 0:
        raise fault("gauge.resolution", "must be above zero", "0.1 bar")
    check_listed(case, gauge)


def check_listed(case: Case, gauge: GaugeUsed) -> None:
    """Whether a gauge is as the shop's list has it. Raises RuleError with the listed figures where it is not."""
    listed = next((of_shop for of_shop in case.gauges.values() if of_shop.name == gauge.name), None)
    if listed is not None and listed != gauge:
        text = f"the shop's list has {listed.name} with {listed.range}, {listed.resolution}, ±{listed.accuracy_pct:g} %"
        raise fault("gauge", f"{text}; take it from there")


# A gauge at its stop shows a little more than its range.
_PAST_RANGE = 1.02


def check_reach(samples: Sequence[SampleRead], gauge: GaugeUsed) -> None:
    """Raises RuleError for a reading that this gauge cannot show."""
    most = _PAST_RANGE * read_gauge_pressure(gauge.range, "gauge.range")
    for index, sample in enumerate(samples):
        if sample.pressure_mpa > most:
            text = f"{sample.pressure_mpa * 10:.1f} bar is above the range of {gauge.name}, {gauge.range}"
            raise fault(f"samples.{index}.pressure_mpa", text, f"up to {gauge.range}")


def gauge_for(case: Case, spec: HoldTest) -> GaugeUsed:
    """The shop's gauge that needs the shortest hold, those in calibration first; an imagined one where none reaches."""
    pressure = spec.pressure.value
    reach = [gauge for gauge in case.gauges.values() if read_gauge_pressure(gauge.range, "gauge.range") >= pressure]
    today = case.now.date()
    ended = {gauge.name for gauge in reach if gauge.calibrated_until and gauge.calibrated_until < today}
    if reach:
        return min(reach, key=lambda gauge: (gauge.name in ended, planned_hold(case, spec, gauge)))
    if pressure <= read_gauge_pressure(USUAL_GAUGE.range, "gauge.range"):
        return USUAL_GAUGE
    return USUAL_GAUGE.model_copy(update={"name": "Gauge", "range": f"{pressure * 10 * 1.25:.0f} bar"})


def gauge_that_tells(case: Case, test: FigureTest) -> GaugeUsed | None:
    """The shop's gauge in calibration that can tell what is wanted; None where none does: it is chosen by hand."""
    if not test.reads_pressure:
        return None
    today = case.now.date()
    able = [
        gauge
        for gauge in case.gauges.values()
        if not (gauge.calibrated_until and gauge.calibrated_until < today) and not test.plan(gauge).findings
    ]
    return min(able, key=lambda gauge: (gauge.accuracy_pct, gauge.name), default=None)
