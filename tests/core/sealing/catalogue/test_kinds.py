"""Every kind of element has its words, its outline and its consequence; what seals is as the format says."""

from __future__ import annotations

import pytest

from ironkettle.core.sealing.catalogue import BACKUPS, KINDS, WIPERS, ElementKind, Law, has_law

K = ElementKind


def test_every_kind_is_in_the_table_once() -> None:
    assert set(KINDS) == set(ElementKind)
    names = [facts.name for facts in KINDS.values()]
    assert len(set(names)) == len(names)


def test_wipers_bands_lantern_rings_and_spacers_do_not_seal_everything_else_does() -> None:
    quiet = {kind for kind, facts in KINDS.items() if not facts.seals}
    assert quiet == {K.WIPER, K.METAL_CLAD_WIPER, K.WEAR_BAND, K.LANTERN_RING, K.SPACER}


@pytest.mark.parametrize("kind", list(ElementKind))
def test_an_outline_lies_in_its_box_and_has_an_area(kind: ElementKind) -> None:
    points = KINDS[kind].outline
    assert all(0 <= u <= 1 and 0 <= v <= 1 for u, v in points)
    area = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, (*points[1:], points[0]), strict=True)) / 2
    assert abs(area) > 0.1


def test_what_has_a_law_of_its_own_is_told_from_its_mirror_image() -> None:
    for kind, facts in KINDS.items():
        mirrored = {(round(1 - u, 6), v) for u, v in facts.outline}
        same = mirrored == {(round(u, 6), v) for u, v in facts.outline}
        assert not same or facts.law is Law.NONE or facts.round, kind


def test_laws_by_hand() -> None:
    assert has_law(Law.HELD) == {K.LIP_SEAL, K.CUP_SEAL, K.V_PACKING}
    assert has_law(Law.AIR) == WIPERS
    assert has_law(Law.RING) == {K.CONTOURED_BACKUP}
    assert has_law(Law.LOWER) == {K.VALVE_LEAF}
    assert has_law(Law.HIGHER) == {K.SHAFT_SEAL}
    assert {K.BACKUP_RING, K.CONTOURED_BACKUP} == BACKUPS
    assert KINDS[K.ENERGISER].inside is K.SLIDE_RING
    assert KINDS[K.WIPER].reversed != KINDS[K.LIP_SEAL].reversed
