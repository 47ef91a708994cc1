"""Photos as they come from a camera, made small, upright and without what they tell of the device."""

from __future__ import annotations

import hashlib
import io
import warnings
from dataclasses import dataclass

from PIL import Image, ImageOps, UnidentifiedImageError

from ironkettle.core.base.errors import fault

MOST_BYTES = 15_000_000
# More than any camera makes; a small file may claim far more (a decompression bomb). [px]
MOST_PIXELS = 80_000_000
# A JPEG is unpacked at the scale that is needed; the others only whole, which takes a second for this many. [px]
MOST_PIXELS_WHOLE = 20_000_000
_LONG_SIDE, _THUMB_SIDE = 1600, 320
_QUALITY = 82
_FORMATS = ("JPEG", "PNG", "WEBP")


@dataclass(frozen=True, slots=True)
class Photo:
    """A photo as it is kept: JPEG, and small for lists. ``sha256`` is of ``image``. [px]"""

    image: bytes
    thumb: bytes
    sha256: str
    width: int
    height: int


def made_small(content: bytes) -> Photo:
    """Re-encode a photo: upright, at most 1600 px, without metadata.

    Raises RuleError for what is empty, too large, no photo, cut short, or claims more pixels than a camera makes.
    """
    if not content:
        raise fault("photo", "nothing came", "a JPEG, PNG or WebP photo")
    if len(content) > MOST_BYTES:
        raise fault("photo", f"{len(content) / 1e6:.0f} MB is too large", f"up to {MOST_BYTES // 1_000_000} MB")
    upright = _opened(content)
    upright.thumbnail((_LONG_SIDE, _LONG_SIDE), Image.Resampling.LANCZOS)
    image = _jpeg(upright)
    width, height = upright.size
    upright.thumbnail((_THUMB_SIDE, _THUMB_SIDE), Image.Resampling.LANCZOS)
    return Photo(image, _jpeg(upright), hashlib.sha256(image).hexdigest(), width, height)


def _opened(content: bytes) -> Image.Image:
    try:
        with warnings.catch_warnings():
            # Sizes are bounded here, before anything is unpacked.
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)
            opened = Image.open(io.BytesIO(content), formats=_FORMATS)
            width, height = opened.size
            allowed = MOST_PIXELS if opened.format == "JPEG" else MOST_PIXELS_WHOLE
            if width * height > allowed:
                text = f"{width} × {height} px are too many for a {opened.format} picture"
                raise fault("photo", text, f"up to {allowed // 1_000_000} million pixels", "a JPEG photo")
            # A JPEG is unpacked at the scale that is needed.
            opened.draft("RGB", (2 * _LONG_SIDE, 2 * _LONG_SIDE))
            return ImageOps.exif_transpose(opened).convert("RGB")
    except Image.DecompressionBombError:
        most = f"up to {MOST_PIXELS // 1_000_000} million pixels"
        raise fault("photo", "it claims far more pixels than a camera makes", most) from None
    except UnidentifiedImageError:
        raise fault("photo", "this is no photo that can be read", "JPEG, PNG, WebP") from None
    except (OSError, ValueError, SyntaxError, EOFError):
        raise fault("photo", "this photo is cut short or damaged", "a whole JPEG, PNG or WebP") from None


def _jpeg(picture: Image.Image) -> bytes:
    out = io.BytesIO()
    # What the device wrote into it (place, time, its own name) stays behind.
    picture.save(out, "JPEG", quality=_QUALITY, optimize=True, exif=b"", icc_profile=None)
    return out.getvalue()
