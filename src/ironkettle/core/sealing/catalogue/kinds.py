"""Every kind of element once: its words, outline, what decides its way round, what lies inside it, what reversing it does."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from ironkettle.core.sealing.catalogue import outlines as o


class ElementKind(StrEnum):
    O_RING = "o_ring"
    BACKUP_RING = "backup_ring"
    CONTOURED_BACKUP = "contoured_backup"
    LIP_SEAL = "lip_seal"
    WIPER = "wiper"
    METAL_CLAD_WIPER = "metal_clad_wiper"
    SLIDE_RING = "slide_ring"
    ENERGISER = "energiser"
    WEAR_BAND = "wear_band"
    V_PACKING = "v_packing"
    HEADER_RING = "header_ring"
    FOLLOWER_RING = "follower_ring"
    LANTERN_RING = "lantern_ring"
    CONED_WASHER = "coned_washer"
    CUP_SEAL = "cup_seal"
    GASKET = "gasket"
    DIAPHRAGM = "diaphragm"
    SHAFT_SEAL = "shaft_seal"
    SEAT_DISC = "seat_disc"
    VALVE_LEAF = "valve_leaf"
    CHECK_BALL = "check_ball"
    SPACER = "spacer"


class Law(StrEnum):
    """What decides which zone an element faces."""

    NONE = "none"
    """It has no direction, unless the sheet gives it one."""
    HELD = "held"
    """It opens towards the pressure it holds; several between two pressures share them."""
    HIGHER = "higher"
    """It faces the space that pushes harder."""
    LOWER = "lower"
    """It is pressed by the harder pushing space, and faces the other."""
    AIR = "air"
    """It faces where dirt comes from."""
    RING = "ring"
    """It hugs the ring it backs up."""
    PACKING = "packing"
    """It faces away from the packing it carries."""
    BEVEL = "bevel"
    """Its bevel faces the pressure; one alone between two pressures works both ways."""


class Group(StrEnum):
    """Elements that fail alike: the columns of the table of causes."""

    RING = "ring"
    LIP = "lip"
    PACKING = "packing"
    WIPER = "wiper"
    SLIDE = "slide"
    FLAT = "flat"
    BACKUP = "backup"
    HARD = "hard"
    ENERGISER = "energiser"


@dataclass(frozen=True, slots=True)
class KindFacts:
    """All that is known of a kind. ``group``: whose causes of failure it shares; ``word``: what faces; ``undirected``: what to mind
    where nothing faces; ``inside``: goes in before the kind named.

    ``seals`` and ``one_use`` hold where a sheet does not say otherwise; ``backed``: a missing backup ring leaves it without support;
    ``lubricated``: it slides or is pushed over an edge, so it is fitted with a lubricant; ``rigid``: drawn as plastic or metal;
    ``reversed``: what comes of it the wrong way round.
    """

    name: str
    group: Group
    law: Law = Law.NONE
    word: str = "marked face"
    undirected: str = "no direction"
    seals: bool = True
    one_use: bool = True
    inside: ElementKind | None = None
    outline: o.Polygon = o.BLOCK
    round: bool = False
    backed: bool = False
    lubricated: bool = False
    rigid: bool = False
    reversed: str = "it could not work: a likely cause of the failure"


_SHUT = "pressure pushed it shut instead of open: the likely cause of the leak"
_DIRT = "it let dirt and water in: a likely cause of scoring and wear"
_BACKFLOW = "it could not close: a likely cause of what flows back"
_UNSPREAD = "the packing was not spread as required: a likely cause of the leak"

KINDS: Mapping[ElementKind, KindFacts] = {
    ElementKind.O_RING: KindFacts(
        "O-ring", Group.RING, undirected="no direction; free of twist", round=True, backed=True, lubricated=True
    ),
    ElementKind.BACKUP_RING: KindFacts(
        "backup ring",
        Group.BACKUP,
        undirected="flat backup on the side away from pressure",
        lubricated=True,
        rigid=True,
    ),
    ElementKind.CONTOURED_BACKUP: KindFacts(
        "contoured backup ring",
        Group.BACKUP,
        Law.RING,
        "hollow face",
        "hollow face against its ring",
        outline=o.HOLLOW,
        reversed="its hollow did not hold the ring: a likely cause of a nibbled ring",
        lubricated=True,
        rigid=True,
    ),
    ElementKind.LIP_SEAL: KindFacts(
        "lip seal", Group.LIP, Law.HELD, "open lips", outline=o.LIPS, reversed=_SHUT, backed=True, lubricated=True
    ),
    ElementKind.CUP_SEAL: KindFacts(
        "cup seal",
        Group.LIP,
        Law.HELD,
        "open side of the cup",
        outline=o.LIPS,
        reversed=_SHUT,
        backed=True,
        lubricated=True,
    ),
    ElementKind.V_PACKING: KindFacts(
        "V-ring", Group.PACKING, Law.HELD, "openings of the V", outline=o.VEE, reversed=_SHUT, lubricated=True
    ),
    ElementKind.WIPER: KindFacts(
        "wiper", Group.WIPER, Law.AIR, "scraping lip", seals=False, outline=o.WIPER, reversed=_DIRT, lubricated=True
    ),
    ElementKind.METAL_CLAD_WIPER: KindFacts(
        "metal-clad wiper", Group.WIPER, Law.AIR, "scraping lip", seals=False, outline=o.CLAD_WIPER, reversed=_DIRT
    ),
    ElementKind.SHAFT_SEAL: KindFacts(
        "shaft seal", Group.LIP, Law.HIGHER, "spring side", outline=o.SHAFT_SEAL, reversed=_SHUT, lubricated=True
    ),
    ElementKind.SLIDE_RING: KindFacts(
        "slide ring",
        Group.SLIDE,
        Law.BEVEL,
        "bevelled edge",
        "works both ways; no direction",
        outline=o.BEVELLED,
        reversed="pressure could not get under its edge: a likely cause of the leak",
        lubricated=True,
        rigid=True,
    ),
    ElementKind.ENERGISER: KindFacts(
        "energiser ring",
        Group.ENERGISER,
        undirected="no direction; goes in before the ring it presses",
        inside=ElementKind.SLIDE_RING,
        round=True,
        lubricated=True,
    ),
    ElementKind.WEAR_BAND: KindFacts(
        "wear band", Group.HARD, undirected="no direction; gap free of burrs", seals=False, one_use=False, rigid=True
    ),
    ElementKind.HEADER_RING: KindFacts(
        "header ring", Group.PACKING, Law.PACKING, "flat face", outline=o.CRESTED, reversed=_UNSPREAD, lubricated=True
    ),
    ElementKind.FOLLOWER_RING: KindFacts(
        "follower ring", Group.PACKING, Law.PACKING, "flat face", outline=o.CUPPED, reversed=_UNSPREAD, lubricated=True
    ),
    ElementKind.LANTERN_RING: KindFacts(
        "lantern ring",
        Group.HARD,
        word="chamfer",
        undirected="holes in line with the supply port",
        seals=False,
        one_use=False,
    ),
    ElementKind.CONED_WASHER: KindFacts(
        "coned washer",
        Group.HARD,
        word="crown",
        undirected="crown towards the nut",
        one_use=False,
        outline=o.DISHED,
        reversed="it gave no spring: a likely cause of a loose joint",
    ),
    ElementKind.GASKET: KindFacts(
        "gasket",
        Group.FLAT,
        undirected="either way round; on clean faces",
        reversed="its holes or bead lay wrong: a likely cause of the leak",
    ),
    ElementKind.DIAPHRAGM: KindFacts(
        "diaphragm",
        Group.FLAT,
        undirected="convolution free to roll the way it was moulded",
        reversed="it was bent against its mould: a likely cause of a crack or a drift",
    ),
    ElementKind.SEAT_DISC: KindFacts(
        "seat disc",
        Group.FLAT,
        word="sealing face",
        undirected="pressed fully home, flat and clean",
        outline=o.DISC,
        reversed="its sealing face did not meet the seat: the likely cause of the leak",
    ),
    ElementKind.VALVE_LEAF: KindFacts(
        "valve leaf", Group.FLAT, Law.LOWER, "sealing face", one_use=False, outline=o.LEAF, reversed=_BACKFLOW
    ),
    ElementKind.CHECK_BALL: KindFacts(
        "check ball", Group.HARD, undirected="no direction; clean, and home on its seat", one_use=False, round=True
    ),
    ElementKind.SPACER: KindFacts("spacer", Group.HARD, seals=False, one_use=False, rigid=True),
}

BACKUPS = frozenset({ElementKind.BACKUP_RING, ElementKind.CONTOURED_BACKUP})
WIPERS = frozenset({ElementKind.WIPER, ElementKind.METAL_CLAD_WIPER})


def has_law(law: Law) -> frozenset[ElementKind]:
    """The kinds whose way round this law decides.

    >>> sorted(has_law(Law.BEVEL))
    [<ElementKind.SLIDE_RING: 'slide_ring'>]
    """
    return frozenset(kind for kind, facts in KINDS.items() if facts.law is law)


def nested(one: ElementKind, other: ElementKind) -> bool:
    """Whether one of two kinds lies inside the other: an energiser and its slide ring share their place.

    >>> nested(ElementKind.SLIDE_RING, ElementKind.ENERGISER)
    True
    """
    return KINDS[one].inside is other or KINDS[other].inside is one
