"""A label held before the camera, which is a device that shows a film; no camera, a refused one, and a code of something else."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, contextmanager
from pathlib import Path

import pytest
import segno
from playwright.sync_api import Browser, BrowserType, Page, expect
from sqlalchemy import Engine

from tests.browser import steps
from tests.browser.conftest import PATIENCE_MS, Server, sign_in_quietly
from tests.browser.steps import field
from tests.browser.test_service import label_of

WIDTH, HEIGHT = 640, 480
Films = Callable[[str], AbstractContextManager[Page]]


def film_of(text: str, path: Path) -> Path:
    """A film without sound or movement in which a code is held up (YUV4MPEG2, eight frames)."""
    rows = [list(row) for row in segno.make(text, error="m").matrix_iter(scale=6, border=4)]
    top, left = (HEIGHT - len(rows)) // 2, (WIDTH - len(rows[0])) // 2
    picture = [bytearray(b"\xeb" * WIDTH) for _ in range(HEIGHT)]
    for y, row in enumerate(rows):
        picture[top + y][left : left + len(row)] = bytes(16 if dark else 235 for dark in row)
    frame = b"FRAME\n" + b"".join(picture) + b"\x80" * (WIDTH * HEIGHT // 2)
    path.write_bytes(f"YUV4MPEG2 W{WIDTH} H{HEIGHT} F8:1 Ip A1:1 C420jpeg\n".encode() + frame * 8)
    return path


@pytest.fixture
def before_camera(
    browser_type: BrowserType,
    browser_type_launch_args: dict[str, object],
    server: Server,
    workshop: Engine,
    tmp_path: Path,
) -> Films:
    """The bench in a browser whose camera sees a code."""

    @contextmanager
    def opened(text: str) -> Iterator[Page]:
        film = film_of(text, tmp_path / "film.y4m")
        known = browser_type_launch_args["args"]
        assert isinstance(known, list)
        arguments = [*known, "--use-fake-device-for-media-stream", "--use-fake-ui-for-media-stream", f"--use-file-for-fake-video-capture={film}"]  # fmt: skip
        seeing: Browser = browser_type.launch(**{**browser_type_launch_args, "args": arguments})  # type: ignore[arg-type]
        page = seeing.new_context(viewport={"width": 1280, "height": 800}).new_page()
        page.set_default_timeout(PATIENCE_MS)
        sign_in_quietly(page, server, "bede")
        page.goto(server.address)
        yield page
        seeing.close()

    return opened


def scan(page: Page) -> None:
    page.get_by_role("main").get_by_role("button", name=re.compile("^Scan ?: ")).first.click()


def test_a_label_before_the_camera_opens_its_unit_and_fills_the_intake(
    bench: Page, before_camera: Films, server: Server
) -> None:
    label = label_of(bench, "FN-5203")
    with before_camera(f"{server.address}/u/{label}") as page:
        scan(page)
        expect(page.get_by_role("heading", name="Fuel injector of the dredger, cylinder 3")).to_be_visible()
        page.goto(f"{server.address}/jobs/new")
        scan(page)
        expect(field(page, "Serial number")).to_have_value("FN-5203")
        expect(field(page, "Customer")).to_have_value("Fennimoor Navigation, dredger")
        # The camera is off as soon as it has seen what it was asked for.
        expect(page.locator("video")).to_have_count(0)


def test_a_code_of_something_else_is_told_and_the_camera_goes_on(before_camera: Films) -> None:
    with before_camera("https://example.com/menu") as page:
        scan(page)
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("“https://example.com/menu” is no code of this shop")
        expect(dialog.locator("video")).to_be_visible()
        dialog.get_by_role("button", name="Close").click()
        expect(page.get_by_role("heading", name="On the bench")).to_be_visible()


@pytest.mark.parametrize(
    ("camera", "said"),
    [
        ("Object.defineProperty(navigator, 'mediaDevices', { value: undefined })", "must begin with https"),
        ("navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('', 'NotFoundError'))", "has no camera"),
        ("navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('', 'NotAllowedError'))", "was refused"),
        ("navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('', 'NotReadableError'))", "Another program"),
    ],
)  # fmt: skip
def test_without_a_camera_it_says_why_and_the_text_can_be_typed(bench: Page, camera: str, said: str) -> None:
    page, label = bench, label_of(bench, "FN-5203")
    page.add_init_script(camera)
    page.reload()
    scan(page)
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text(said)
    typed = dialog.get_by_label("or type the text beside the code")
    expect(typed).to_be_focused()
    typed.fill(label[:-1])
    typed.press("Enter")
    expect(dialog).to_contain_text("is no code of this shop")
    # A scanner types the link, and Enter.
    typed.fill(f"{steps.root_of(page)}/u/{label.lower()}")
    typed.press("Enter")
    expect(page.get_by_role("heading", name="Fuel injector of the dredger, cylinder 3")).to_be_visible()
