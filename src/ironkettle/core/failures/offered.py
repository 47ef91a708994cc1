"""Which signs are worth showing for an element, the likeliest first."""

from __future__ import annotations

from ironkettle.core.catalogue import ElementKind
from ironkettle.core.failures.model import GROUPS, FailureTable, Group, Sign, SignFacts

# Signs that only some elements can show. The wrong way round is asked for by itself.
_ONLY: dict[Sign, frozenset[Group]] = {
    Sign.LIP_TORN: frozenset({Group.LIP, Group.WIPER, Group.PACKING}),
    Sign.LIP_FOLDED: frozenset({Group.LIP, Group.WIPER, Group.PACKING}),
    Sign.SPIRAL_CUTS: frozenset({Group.RING, Group.ENERGISER}),
    Sign.ENERGISER_SPOILED: frozenset({Group.SLIDE, Group.ENERGISER}),
    Sign.REVERSED: frozenset(),
}
_ON_HARD = frozenset({
    Sign.NONE, Sign.WORN_ONE_SIDE, Sign.WORN_EVENLY, Sign.SCORED_ALONG, Sign.MISSING_PIECE, Sign.RUST_BEHIND,
    Sign.DIRT_EMBEDDED, Sign.BURNT, Sign.HARD_CRACKED,
})  # fmt: skip


def signs_for(element: ElementKind, table: FailureTable) -> tuple[SignFacts, ...]:
    """The signs an element can show, *nothing* first, then by how often they are seen on its kind.

    Source: the priors and weights of the failure table.
    """
    group = GROUPS[element]
    can = [
        facts
        for sign, facts in table.signs.items()
        if group in _ONLY.get(sign, set(Group)) and (group is not Group.HARD or sign in _ON_HARD)
    ]
    return tuple(sorted(can, key=lambda one: (one.sign is not Sign.NONE, -_often(one, group, table))))


def _often(facts: SignFacts, group: Group, table: FailureTable) -> float:
    return sum(table.causes[cause].prior[group] * weight.ratio for cause, weight in facts.weights.items())
