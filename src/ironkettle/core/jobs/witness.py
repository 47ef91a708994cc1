"""The second witness of a hold: what ran into the measuring glass at the open port while the pressure was held."""

from __future__ import annotations

from dataclasses import replace

from ironkettle.core.base.errors import fault
from ironkettle.core.base.findings import caution, info
from ironkettle.core.base.quantities import Dimension, read_quantity, written_half
from ironkettle.core.jobs.runs import Judgement
from ironkettle.core.machine.pressure import Analysis
from ironkettle.core.sheets.document.trials import HoldTest

# What a measuring glass of a bench is read to at best, and its own tolerance. [ml, share]
_READ_TO_ML, _GLASS = 0.1, 0.05
_MOST_ML = 10_000.0
_BASIS = "two measurements of one hold (guide: Pressure holds)"


def check_collected(spec: HoldTest, collected: str | None) -> None:
    """Raises RuleError where the sheet puts a glass at the open port and nothing is entered, or the other way round."""
    if spec.glass is not None and collected is None:
        raise fault(
            "collected", f"enter what ran into the measuring glass at the {spec.glass}, 0 ml if nothing did", "0.4 ml"
        )
    if spec.glass is None and collected is not None:
        raise fault("collected", f"{spec.name} has no measuring glass")
    if collected is not None:
        collected_rate(collected, 60.0)


def with_glass(judgement: Judgement, spec: HoldTest, collected: str | None, limit: float, held: float) -> Judgement:
    """The judgement of a hold with what its glass says beside it; ``limit`` in ml/min, ``held`` in s.

    Two witnesses that disagree are undecided: what leaks somewhere else does not run into the glass.
    Range: both above 0. [ml/min, s]
    """
    if collected is None or judgement.verdict == "invalid" or held <= 0:
        return judgement
    low, high = collected_rate(collected, held)
    words = f"Into the measuring glass at the {spec.glass}: {collected} in {held / 60:.3g} min, {low:.3g} to {high:.3g} ml/min"
    apart = low > judgement.high_ml_min or high < judgement.low_ml_min
    over, under = low > limit, high < limit
    agrees = not apart and (
        under if judgement.verdict == "pass" else not under if judgement.verdict == "fail" else True
    )
    if agrees:
        return judgement.model_copy(update={"words": [*judgement.words, f"{words}."]})
    word = "more" if over or low > judgement.high_ml_min else "less" if apart else "not clearly the same"
    text = f"{words}: {word} than the pressure shows. The two do not agree, so it is undecided."
    return judgement.model_copy(update={"verdict": "undecided", "words": [*judgement.words, text]})


def shown_with_glass(found: Analysis, spec: HoldTest, judgement: Judgement | None) -> Analysis:
    """What the pressure comes to, as it is shown where a glass stands beside it: a pass waits for the glass, and a run that was
    judged shows its judgement."""
    if spec.glass is None:
        return found
    if judgement is None:
        if found.verdict != "pass":
            return found
        text = f"The pressure passes. Read what ran into the measuring glass at the {spec.glass}: both decide."
        return replace(found, verdict="undecided", findings=(info("glass-unread", text, _BASIS), *found.findings))
    if judgement.verdict == found.verdict:
        return found
    words = caution("glass", judgement.words[-1], _BASIS)
    return replace(found, verdict=judgement.verdict, findings=(words, *found.findings))


def collected_rate(collected: str, held: float) -> tuple[float, float]:
    """The least and the most that ran into a glass, by how it was read and how it was written. [ml/min]

    Parameters: held : how long, > 0 [s]. Source: no published source; typical bench glassware.
    Raises RuleError for a volume that no measuring glass holds.
    """
    volume = read_quantity(collected, Dimension.VOLUME, "collected").value
    if not 0 <= volume <= _MOST_ML:
        raise fault(
            "collected", f"“{collected}” is not a possible volume for a measuring glass", f"0 ml to {_MOST_ML:g} ml"
        )
    # Nothing is seen to a drop, however it is written.
    written = written_half(collected, Dimension.VOLUME, "collected") if volume else 0.0
    doubt = max(_READ_TO_ML, written) + _GLASS * volume
    return max(volume - doubt, 0.0) / held * 60, (volume + doubt) / held * 60
