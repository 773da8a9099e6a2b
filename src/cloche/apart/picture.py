"""A picture made anew: upright, small, as JPEG without its camera's notes. Also used where one picture is at hand."""

from __future__ import annotations

import io
import struct
import warnings

from PIL import Image, ImageOps

SIDE_PX, MOST_PX = 1280, 16_000_000
KINDS = ("JPEG", "PNG", "WEBP")


class NoPicture(ValueError):
    """Raised when a file is not a picture or is too large."""


def small_jpeg(data: bytes) -> bytes:
    """Decode a picture and encode it as JPEG of at most 1280 px a side. Raises NoPicture."""
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            image = Image.open(io.BytesIO(data), formats=KINDS)
            if image.width * image.height > MOST_PX:
                raise NoPicture(f"The picture has {image.width} × {image.height} pixels, which is too many.")
            upright = ImageOps.exif_transpose(image).convert("RGB")
        upright.thumbnail((SIDE_PX, SIDE_PX))
        out = io.BytesIO()
        upright.save(out, "JPEG", quality=80, optimize=True)
    except NoPicture:
        raise
    except (OSError, ValueError, SyntaxError, struct.error, IndexError, KeyError, TypeError, MemoryError) as broken:
        raise NoPicture("The picture cannot be read.") from broken
    except (Image.DecompressionBombError, Image.DecompressionBombWarning) as bomb:
        raise NoPicture("The picture is too large.") from bomb
    return out.getvalue()
