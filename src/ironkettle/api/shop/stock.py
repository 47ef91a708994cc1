"""The shop's stock: seals by their housing, rings and kits by what they are called, parts by name."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.base.schemas import Body, Collector, LengthText, NameText
from ironkettle.api.policies import Caller, StockPolicy
from ironkettle.api.sealing.seals import HousingBody
from ironkettle.core.base.errors import fault
from ironkettle.core.base.text import Plain
from ironkettle.core.jobs.shelf import StockKind
from ironkettle.core.sealing.seals import SealSide
from ironkettle.core.sheets.document.fields import Key
from ironkettle.reference import ring_table
from ironkettle.store.shop.stock import StockItem, add_stock, all_stock, find_stock
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api/stock", tags=["stock"], responses=ERROR_RESPONSES | GUARDED)

Reader = Annotated[Caller, allow(StockPolicy.read)]
Keeper = Annotated[Caller, allow(StockPolicy.change)]
Words = Annotated[str, StringConstraints(max_length=80, strip_whitespace=True), Plain]
Count = Annotated[int, Field(ge=0, le=99_999)]
_DIMENSIONS = ("side", "surface", "groove", "length")


class StockItemBody(Body):
    """A seal has its housing (``side`` to ``length``); an O-ring its ``size``, *AS568 214*; a kit its number; a part its name."""

    key: Key = Field(examples=["s-28-38"])
    name: NameText
    kind: StockKind
    side: SealSide | None = None
    surface: LengthText | None = None
    groove: LengthText | None = None
    length: LengthText | None = None
    size: Words = ""
    compound: Words = ""
    in_stock: Count
    least: Count = 0
    place: NameText = Field(examples=["drawer 12"])

    def checked(self) -> dict[str, Any]:
        """The item's columns. Raises RuleError for what its kind needs and lacks, or has and cannot have."""
        read = Collector()
        housed = self.kind.housed
        for name in _DIMENSIONS:
            there = getattr(self, name) is not None
            read.require(there is housed, name, "a seal needs it" if housed else "only housing seals have it")
        if self.kind.called:
            read.require(bool(self.size), "size", self.kind.called)
        read.done()
        if housed:
            HousingBody(**self.model_dump(include={"kind", *_DIMENSIONS})).housing()
        elif self.kind is StockKind.O_RING:
            series, _, designation = self.size.rpartition(" ")
            ring_table().find(series, designation, "size")
        return self.model_dump(mode="json")


class StockItemChange(Body):
    """What changes of an item; what is left out stays."""

    name: NameText | None = None
    place: NameText | None = None
    in_stock: Count | None = None
    least: Count | None = None
    active: bool | None = None


class StockItemOut(BaseModel):
    """``kind_name`` and ``what``: its kind, and its housing or what it is called, in words; ``low``: fewer than should be."""

    model_config = ConfigDict(from_attributes=True)

    key: str
    name: str
    kind: str
    kind_name: str
    what: str
    side: SealSide | None
    surface: str | None
    groove: str | None
    length: str | None
    size: str
    compound: str
    in_stock: int
    least: int
    place: str
    active: bool
    low: bool

    @classmethod
    def of(cls, item: StockItem) -> StockItemOut:
        housing = " × ".join(part for part in (item.surface, item.groove, item.length) if part)
        columns = {name: getattr(item, name) for name in StockItemOut.model_fields if hasattr(item, name)}
        return cls(
            **columns,
            kind_name=StockKind(item.kind).word,
            what=" ".join(part for part in (housing or item.size, item.compound) if part),
            low=item.in_stock < item.least,
        )


class StockKindOut(BaseModel):
    """``housed``: told by its housing; ``called``: what its size is, in words."""

    key: StockKind
    name: str
    housed: bool
    called: str | None


@router.get("/kinds", summary="Kinds of stock item")
def kinds(caller: Reader) -> list[StockKindOut]:
    return [StockKindOut(key=kind, name=kind.word, housed=kind.housed, called=kind.called) for kind in StockKind]


@router.get("", summary="Stock list")
def stock(session: DbSession, caller: Reader, ended: bool = False) -> list[StockItemOut]:
    return [StockItemOut.of(item) for item in all_stock(session, ended=ended)]


@router.post("", summary="Add an item to the stock list", responses=CONFLICT)
def add_item(body: StockItemBody, session: DbSession, caller: Keeper) -> StockItemOut:
    columns = body.checked()
    item = StockItem(**columns, active=True)
    add_stock(session, item)
    leave_trail(session, caller.key, now(), "stock", body.key, "added", after=columns)
    return StockItemOut.of(item)


@router.patch("/{key}", summary="Recount an item, move it, or remove it", responses=NOT_THERE)
def change_item(key: NameText, body: StockItemChange, session: DbSession, caller: Keeper) -> StockItemOut:
    item = find_stock(session, key)
    if item is None:
        raise NotThereError("stock item", key)
    changes = body.model_dump(exclude_none=True)
    if not changes:
        raise fault("in_stock", "nothing to change was given", *StockItemChange.model_fields)
    before = {name: getattr(item, name) for name in changes}
    for name, value in changes.items():
        setattr(item, name, value)
    session.flush()
    leave_trail(session, caller.key, now(), "stock", key, "changed", before, changes)
    return StockItemOut.of(item)
