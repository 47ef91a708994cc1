"""Photos: made small and upright, what is no photo refused, sealed by hash, on the certificate; pictures made here."""

from __future__ import annotations

import io
import struct
import uuid
import zlib
from typing import Any

import pytest
from PIL import Image, ImageDraw
from pypdf import PdfReader
from sqlalchemy import Engine, text

from tests import walk
from tests.people import BenchClient

RED, BLUE = (200, 30, 30), (30, 30, 200)


def picture(width: int = 600, height: int = 400, kind: str = "JPEG", **saved: Any) -> bytes:
    """Red at the left, blue at the right."""
    image = Image.new("RGB", (width, height), RED)
    ImageDraw.Draw(image).rectangle((width // 2, 0, width, height), fill=BLUE)
    out = io.BytesIO()
    image.save(out, kind, **saved)
    return out.getvalue()


def send(client: BenchClient, job: str, content: bytes, key: str | None = None) -> Any:
    return client.post(f"/api/jobs/{job}/photos", params={"id": key or str(uuid.uuid4())}, content=content)


def tell(client: BenchClient, job: str, photo: str, **told: Any) -> Any:
    return walk.send(client, job, {"kind": "photo_taken", "photo": photo, **told})


@pytest.fixture
def job(client: BenchClient) -> str:
    return walk.numbered(client, "FN-0417")


def test_a_photo_is_kept_small_upright_and_without_what_it_tells_of_the_device(client: BenchClient, job: str) -> None:
    exif = Image.Exif()
    exif[0x0112] = 6  # turned by a quarter, as a telephone held upright writes it
    exif[0x010F] = "A maker of cameras"
    exif[0x8825] = {2: (53.0, 7.0, 12.0)}
    sent = send(client, job, picture(3000, 2000, exif=exif)).json()
    # 3000 x 2000 turned is 2000 x 3000, made small to 1600 at its long side.
    assert (sent["width"], sent["height"]) == (1067, 1600)
    kept = client.get(f"/api/jobs/{job}/photos/{sent['id']}.jpg")
    assert kept.headers["content-type"] == "image/jpeg"
    opened = Image.open(io.BytesIO(kept.content))
    assert dict(opened.getexif()) == {}
    assert b"cameras" not in kept.content
    # A quarter turn clockwise: what was at the left is at the top.
    top, bottom = opened.getpixel((500, 100)), opened.getpixel((500, 1500))
    assert top[0] > 150 > top[2]  # type: ignore[index]
    assert bottom[2] > 150 > bottom[0]  # type: ignore[index]
    small = client.get(f"/api/jobs/{job}/photos/{sent['id']}.jpg?small=true").content
    assert max(Image.open(io.BytesIO(small)).size) == 320
    assert len(small) < len(kept.content)


@pytest.mark.parametrize("kind", ["PNG", "WEBP"])
def test_other_ways_of_keeping_a_photo_are_taken_too(client: BenchClient, job: str, kind: str) -> None:
    assert send(client, job, picture(kind=kind)).json()["width"] == 600


def bomb() -> bytes:
    """A PNG of a few hundred bytes that claims 60,000 x 60,000."""

    def chunk(name: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))

    head = struct.pack(">IIBBBBB", 60_000, 60_000, 8, 2, 0, 0, 0)
    return (
        b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"\0" * 4000)) + chunk(b"IEND", b"")
    )


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "nothing came"),
        (b"GIF89a" + b"\0" * 200, "no photo that can be read"),
        (b"%PDF-1.7 hello", "no photo that can be read"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "no photo that can be read"),
        (picture()[: len(picture()) // 2], "cut short or damaged"),
        (picture(kind="PNG")[:-40], "cut short or damaged"),
        (bomb(), "more pixels than a camera makes"),
    ],
    ids=["empty", "gif", "pdf", "svg", "half a jpeg", "half a png", "bomb"],
)
def test_what_is_no_photo_is_refused_in_words(client: BenchClient, job: str, content: bytes, words: str) -> None:
    answer = send(client, job, content)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "photo"
    assert words in answer.json()["errors"][0]["message"]


def test_a_large_drawing_is_refused_before_it_is_unpacked(client: BenchClient, job: str) -> None:
    out = io.BytesIO()
    Image.new("1", (8888, 8888)).save(out, "PNG")
    answer = send(client, job, out.getvalue())
    assert answer.status_code == 422
    assert "8888 × 8888 px are too many for a PNG picture" in answer.json()["errors"][0]["message"]


def test_a_released_job_takes_no_photo(client: BenchClient) -> None:
    released = walk.open_new(client, "header-tank-valve", fluid="fresh water")
    walk.walk(client, released, who="tamsin")
    answer = send(client, released, picture())
    assert answer.status_code == 409, answer.text
    assert "reopen" in answer.json()["detail"]


def test_sixty_megabytes_are_refused_before_they_are_looked_at(client: BenchClient, job: str) -> None:
    answer = send(client, job, b"\xff\xd8" + b"\0" * 60_000_000)
    assert answer.status_code == 413
    assert "16000 kB" in answer.json()["detail"]


def test_sent_twice_it_is_kept_once_and_never_for_another_job(client: BenchClient, job: str) -> None:
    key = str(uuid.uuid4())
    first, second = send(client, job, picture(), key).json(), send(client, job, picture(300, 300), key).json()
    assert first == second
    other = walk.numbered(client, "FN-0416")
    assert send(client, other, picture(), key).status_code == 409
    assert client.get(f"/api/jobs/{other}/photos/{key}.jpg").status_code == 404
    assert tell(client, other, key).status_code == 422


def test_an_entry_tells_of_it_and_a_later_one_changes_words_and_arrows(client: BenchClient, job: str) -> None:
    photo = send(client, job, picture()).json()
    assert client.get(f"/api/jobs/{job}").json()["photos"] == []
    tell(client, job, photo["id"], about="step:wire", words="hook of the wire", sha256="a" * 64)
    view = tell(client, job, photo["id"], about="step:wire", words="hook", arrows=[
        {"start": [0.1, 0.1], "end": [0.5, 0.5], "word": "here"}], on_certificate=True).json()  # fmt: skip
    (told,) = view["photos"]
    assert (told["words"], told["on_certificate"], told["who"]) == ("hook", True, "Bede Harrowgate")
    assert told["arrows"] == [{"start": [0.1, 0.1], "end": [0.5, 0.5], "word": "here"}]
    assert client.get(f"/api/jobs/{job}/photos").json() == view["photos"]
    # The hash is the server's, whatever was sent.
    log = client.get(f"/api/jobs/{job}/log").json()
    assert "a" * 64 not in str(log)
    assert "photo, 1 arrow, for the certificate: hook" in str(log)
    assert tell(client, job, photo["id"], arrows=[{"start": [0, 0], "end": [2, 0]}]).status_code == 422
    assert tell(client, job, str(uuid.uuid4())).status_code == 422


def test_circles_are_kept_as_they_were_drawn_and_told_in_the_log(client: BenchClient, job: str) -> None:
    photo = send(client, job, picture()).json()["id"]
    drawn = [{"at": [0.4, 0.6], "radius": 0.1, "word": "pit"}, {"at": [0, 1], "radius": 1, "word": ""}]
    (told,) = tell(client, job, photo, circles=drawn).json()["photos"]
    assert told["circles"] == drawn
    assert "photo, 2 circles" in str(client.get(f"/api/jobs/{job}/log").json())


@pytest.mark.parametrize(
    "circle",
    [
        {"at": [0.5, 0.5], "radius": 0},
        {"at": [0.5, 0.5], "radius": 1.01},
        {"at": [0.5, 1.2], "radius": 0.1},
        {"at": [0.5, 0.5], "radius": "wide"},
        {"at": [0.5, 0.5], "radius": 0.1, "word": "x" * 61},
    ],
)
def test_what_is_no_circle_on_the_photo_is_refused(client: BenchClient, job: str, circle: dict[str, Any]) -> None:
    photo = send(client, job, picture()).json()["id"]
    assert tell(client, job, photo, circles=[circle]).status_code == 422
    assert client.get(f"/api/jobs/{job}/photos").json() == []


def test_photos_of_the_units_last_repairs_are_told_with_their_job(client: BenchClient) -> None:
    first = walk.open_new(client, "header-tank-valve", fluid="fresh water", serial="FN-7700")
    photo = send(client, first, picture()).json()["id"]
    tell(client, first, photo, about="step:seat", time="after", words="seat lapped")
    walk.walk(client, first, who="tamsin")
    elsewhere = walk.open_new(client, "header-tank-valve", fluid="fresh water", serial="FN-7701")
    tell(client, elsewhere, send(client, elsewhere, picture()).json()["id"], words="of another unit")
    for _ in range(4):
        # Jobs without a photo do not push it out.
        walk.open_new(client, "header-tank-valve", fluid="fresh water", serial="FN-7700")
    again = walk.open_new(client, "header-tank-valve", fluid="fresh water", serial="FN-7700")
    (told,) = client.get(f"/api/jobs/{again}/photos/earlier").json()
    number = client.get(f"/api/jobs/{first}").json()["job"]["number"]
    assert (told["job"], told["number"], told["words"], told["time"]) == (first, number, "seat lapped", "after")
    assert client.get(f"/api/jobs/{first}/photos/earlier").json() == []
    assert client.get(f"/api/jobs/{again}/photos").json() == []


def test_a_photo_that_was_changed_breaks_the_seal(client: BenchClient, job: str, admin: Engine) -> None:
    photo = send(client, job, picture()).json()["id"]
    tell(client, job, photo)
    assert client.get(f"/api/jobs/{job}/seal").json()["holds"] is True
    with admin.begin() as connection:
        connection.execute(text("SET session_replication_role = replica"))
        connection.execute(text("UPDATE photos SET image = image || '\\x00'::bytea"))
    sealed = client.get(f"/api/jobs/{job}/seal").json()
    assert [one["reason"] for one in sealed["broken"]] == ["has another photo than was sealed with it"]


def test_the_chosen_ones_are_on_the_certificate(client: BenchClient, job: str) -> None:
    keys = [send(client, job, picture(600 + size)).json()["id"] for size in range(3)]
    tell(client, job, keys[0], about="rod", time="before", words="pitted", on_certificate=True, arrows=[
        {"start": [0.1, 0.1], "end": [0.5, 0.5], "word": "pit"}])  # fmt: skip
    tell(client, job, keys[1], about="rod", time="after", words="dressed", on_certificate=True)
    tell(client, job, keys[2], words="not for the customer")
    content = client.get(f"/api/jobs/{job}/certificate.pdf").content
    pages = PdfReader(io.BytesIO(content)).pages
    assert sum(len(page.images) for page in pages) == 2
    words = " ".join(page.extract_text() for page in pages)
    assert "before, pitted" in words
    assert "after, dressed" in words
    assert "not for the customer" not in words


def test_a_test_that_wants_a_sheet_attached_passes_with_its_photo(client: BenchClient) -> None:
    job = walk.open_new(client, "diver-compressor")
    view = walk.walk(client, job, until="test:air:as_left")
    sent = send(client, job, picture()).json()
    assert tell(client, job, sent["id"], about="test:air:as_left").status_code == 200
    view = client.get(f"/api/jobs/{job}").json()
    task = walk.task_of(view, "test:air:as_left")
    assert "note" not in [ask["field"] for ask in task["asks"]]
    walk.wait_out(client, job, task)
    assert walk.send(client, job, walk.payload_of(task)).status_code == 200
