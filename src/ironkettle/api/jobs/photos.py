"""Photos of a job: sent, then told of by an entry; shown large and small."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Depends, Request, Response
from pydantic import BaseModel

from ironkettle.api.base.deps import DbSession, now
from ironkettle.api.base.identity import allow
from ironkettle.api.base.problems import CONFLICT, ERROR_RESPONSES, GUARDED, NOT_THERE, NotThereError
from ironkettle.api.jobs.found_view import PhotoOut, photos_out
from ironkettle.api.jobs.named import job_of
from ironkettle.api.policies import Caller, JobPolicy
from ironkettle.core.base.errors import RefusedError, fault
from ironkettle.photos import made_small
from ironkettle.store.jobs.cases import state_of
from ironkettle.store.jobs.photos import PhotoRow, add_photo, find_photo, photos_of, repairs_with_photos
from ironkettle.store.shop.people import names_of

router = APIRouter(prefix="/api/jobs", tags=["photos"], responses=ERROR_RESPONSES | GUARDED | NOT_THERE)

Reader = Annotated[Caller, allow(JobPolicy.read)]
Writer = Annotated[Caller, allow(JobPolicy.append)]
MOST_PHOTOS = 200
# So many repairs back are shown beside this one's photos.
MOST_REPAIRS = 3
_PICTURE: dict[int | str, dict[str, Any]] = {200: {"content": {"image/jpeg": {}}, "description": "The photo"}}
_SENT = {"requestBody": {"required": True, "content": {"image/*": {"schema": {"type": "string", "format": "binary"}}}}}


async def _body(request: Request) -> bytes:
    return await request.body()


class EarlierPhotoOut(PhotoOut):
    """A photo of a repair before this one: the job it belongs to."""

    job: UUID
    number: int


class SentPhotoOut(BaseModel):
    """What was kept of a photo. [px]"""

    id: UUID
    sha256: str
    width: int
    height: int
    taken_at: datetime


@router.get("/{job_id}/photos", summary="The photos that entries of a job refer to")
def photos(job_id: UUID, session: DbSession, caller: Reader) -> list[PhotoOut]:
    job = job_of(session, job_id)
    return photos_out(state_of(session, job), names_of(session))


@router.get("/{job_id}/photos/earlier", summary="Photos of the unit's repairs before this one")
def earlier_photos(job_id: UUID, session: DbSession, caller: Reader) -> list[EarlierPhotoOut]:
    """The newest repair first; ``about`` tells which show the same place."""
    job, names = job_of(session, job_id), names_of(session)
    return [
        EarlierPhotoOut(**photo.model_dump(), job=row.id, number=row.number)
        for row in repairs_with_photos(session, job, MOST_REPAIRS)
        for photo in photos_out(state_of(session, row), names)
    ]


@router.post("/{job_id}/photos", summary="Send a photo", responses=CONFLICT, openapi_extra=_SENT)
def send_photo(
    job_id: UUID, id: UUID, content: Annotated[bytes, Depends(_body)], session: DbSession, caller: Writer
) -> SentPhotoOut:
    """The photo itself is the body; ``id`` comes from the client, so that sending it twice keeps it once."""
    job = job_of(session, job_id)
    present = find_photo(session, id)
    if present is None:
        if job.released:
            raise RefusedError(
                "job-closed", f"job {job.number} is closed and takes no photos; reopen it with a reason first"
            )
        if len(photos_of(session, job.id)) >= MOST_PHOTOS:
            raise fault("photo", f"this job has {MOST_PHOTOS} photos already", "fewer photos")
        made = made_small(content)
        present = PhotoRow(
            id=id,
            job_id=job.id,
            who=caller.key,
            taken_at=now(),
            sha256=made.sha256,
            width=made.width,
            height=made.height,
            image=made.image,
            thumb=made.thumb,
        )
        add_photo(session, present)
    elif present.job_id != job.id:
        raise RefusedError("photo-exists", "a photo with this id belongs to another job")
    return SentPhotoOut(
        id=present.id, sha256=present.sha256, width=present.width, height=present.height, taken_at=present.taken_at
    )


@router.get("/{job_id}/photos/{photo}.jpg", summary="A photo", responses=_PICTURE, response_class=Response)
def large(job_id: UUID, photo: UUID, session: DbSession, caller: Reader, small: bool = False) -> Response:
    job = job_of(session, job_id)
    row = find_photo(session, photo)
    if row is None or row.job_id != job.id:
        raise NotThereError("photo", str(photo))
    headers = {"Cache-Control": "private, max-age=31536000, immutable", "Content-Disposition": "inline"}
    return Response(row.thumb if small else row.image, media_type="image/jpeg", headers=headers)
