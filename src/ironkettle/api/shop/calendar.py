"""What is due as a calendar that other programs follow: an iCalendar feed, by a token that is good for nothing else."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Annotated

from fastapi import APIRouter, Depends, Query, Request, Response
from icalendar import Calendar, Event
from pydantic import BaseModel

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import MaybeCaller, NotSignedInError, allow
from ironkettle.api.base.problems import ERROR_RESPONSES, GUARDED
from ironkettle.api.policies import Caller, UnitPolicy, authorize
from ironkettle.api.shop.unit_view import UnitDueOut
from ironkettle.api.shop.units import due_list
from ironkettle.core.shop.service import Standing
from ironkettle.store.shop.sessions import make_token, person_of_token
from ironkettle.store.shop.trail import leave_trail

router = APIRouter(prefix="/api", tags=["units"], responses=ERROR_RESPONSES | GUARDED)

# How far the feed looks ahead. [days]
AHEAD_DAYS = 400
_MOST = 500
LINK_LASTS = timedelta(days=366)
Reader = Annotated[Caller, allow(UnitPolicy.read)]


class FeedOut(BaseModel):
    """The link of a feed, and when it ends; it is given here and never again."""

    link: str
    ends_at: datetime


def follower(
    request: Request, session: DbSession, caller: MaybeCaller, token: Annotated[str, Query(max_length=100)] = ""
) -> Caller:
    """Who follows the calendar: by the token in the link, or signed in."""
    known = person_of_token(session, token, now(), use="calendar") if token else None
    if token and known is None:
        raise NotSignedInError("this link has expired, was revoked or is unknown; make a new one under Due")
    found = Caller(known[1].author(), "token") if known else caller
    if found is None:
        raise NotSignedInError("sign in, or follow a link made for it")
    authorize(found, UnitPolicy.read)
    return found


@router.post("/due/feed", summary="Make a link to the calendar of services due; it is shown once")
def make_feed(request: Request, session: DbSession, caller: Reader) -> FeedOut:
    row, text = make_token(session, "calendar of what is due", caller.key, now(), use="calendar", lasts=LINK_LASTS)
    leave_trail(
        session, caller.key, now(), "token", str(row.id), "made", after={"name": row.name, "person": caller.key}
    )
    assert row.ends_at is not None
    return FeedOut(link=f"{request.base_url}api/due.ics?token={text}", ends_at=row.ends_at)


@router.get("/due.ics", summary="Services due, as a calendar", response_class=Response)
def feed(
    request: Request, session: DbSession, caller: Annotated[Caller, Depends(follower, scope="function")]
) -> Response:
    listed, _ = due_list(session, now(), AHEAD_DAYS, _MOST)
    content = calendar_of([due for due in listed if due.due.by is not None], str(request.base_url), now())
    headers = {"Content-Disposition": 'inline; filename="due.ics"', "Cache-Control": "no-store"}
    return Response(content, media_type="text/calendar; charset=utf-8", headers=headers)


def calendar_of(listed: list[UnitDueOut], base: str, at: datetime) -> bytes:
    """A calendar with a whole day for each that is due; what is overdue stands on the day it came. Source: RFC 5545."""
    calendar = Calendar()
    calendar.add("prodid", "-//Iron Kettle//due//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", "Iron Kettle: due")
    for due in listed:
        assert due.due.by is not None
        event = Event()
        event.add("uid", f"{due.unit.label}-{due.due.interval}@iron-kettle")
        event.add("dtstamp", at.astimezone(UTC))
        event.add("dtstart", due.due.by)
        event.add("dtend", due.due.by + timedelta(days=1))
        over = "OVERDUE: " if due.due.standing is Standing.OVERDUE else ""
        event.add("summary", f"{over}{due.due.title}: {due.unit.name} ({due.unit.serial})")
        event.add("description", "\n".join(reach.words for reach in due.due.reaches))
        event.add("url", f"{base}u/{due.unit.label}")
        event.add("transp", "TRANSPARENT")
        calendar.add_component(event)
    text: bytes = calendar.to_ical()
    return text
