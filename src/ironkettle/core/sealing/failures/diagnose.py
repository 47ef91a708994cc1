"""Causes ranked by what is seen and what is known: how common each is, times how each sign and fact speaks for it."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, log

from ironkettle.core.sealing.catalogue import KINDS
from ironkettle.core.sealing.failures.evidence import Circumstances, evidence_of
from ironkettle.core.sealing.failures.model import Cause, Correction, FailureTable, Weight

_HOW = {Weight.STRONG: "strong evidence for it", Weight.TYPICAL: "typical of it", Weight.POSSIBLE: "possible with it"}


@dataclass(frozen=True, slots=True)
class Diagnosed:
    """One cause with its share of all causes [-], what speaks for and against it, and what puts it right."""

    cause: Cause
    name: str
    customer: str
    share: float
    speaks_for: tuple[str, ...]
    speaks_against: tuple[str, ...]
    corrections: tuple[Correction, ...]


def diagnose(known: Circumstances, table: FailureTable) -> tuple[Diagnosed, ...]:
    """All causes, the likeliest first; their shares add up to 1.

    How common a cause is by element and motion, times a ratio for every sign and every fact that is known. What
    is not known moves nothing. A sign never lowers the share of the cause it speaks for most.

    Source: Bayes' rule with signs taken as independent; the table is this project's own judgement, and a guide only.
    """
    group = KINDS[known.element].group
    speaks_for: dict[Cause, list[str]] = {cause: [] for cause in table.causes}
    against: dict[Cause, list[str]] = {cause: [] for cause in table.causes}
    score: dict[Cause, float] = {}
    for cause, facts in table.causes.items():
        motion = 1.0 if known.motion is None else facts.by_motion.get(known.motion, 1.0)
        score[cause] = log(facts.prior[group] * motion)
    # A sign told twice is one sign.
    for sign in dict.fromkeys(known.signs):
        evidence = table.signs[sign]
        for cause, weight in evidence.weights.items():
            score[cause] += log(weight.ratio)
            if weight in _HOW:
                speaks_for[cause].append(f"{evidence.sign.words}: {_HOW[weight]}")
            elif weight is Weight.AGAINST:
                against[cause].append(f"{evidence.sign.words}: evidence against it")
    for fact in evidence_of(known):
        score[fact.cause] += log(fact.ratio)
        (speaks_for if fact.ratio > 1 else against)[fact.cause].append(fact.text)
    highest = max(score.values())
    weights = {cause: exp(value - highest) for cause, value in score.items()}
    total = sum(weights.values())
    ranked = sorted(table.causes.values(), key=lambda facts: -weights[facts.cause])
    return tuple(
        Diagnosed(
            candidate.cause,
            candidate.name,
            candidate.customer,
            weights[candidate.cause] / total,
            tuple(speaks_for[candidate.cause]),
            tuple(against[candidate.cause]),
            candidate.corrections,
        )
        for candidate in ranked
    )
