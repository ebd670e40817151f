"""Reference pictures: checked before they are decoded, then kept by their content."""

from __future__ import annotations

import hashlib
import io
import warnings

from wingboard.core.record.errors import DesignError
from wingboard.store.pictures import PictureRow

MOST_BYTES = 8_000_000
MOST_PIXELS = 40_000_000
MOST_SIDE = 20_000
MEDIA = {"PNG": "image/png", "JPEG": "image/jpeg", "MPO": "image/jpeg"}
"""A JPEG with further pictures in it, as cameras write them, is kept as the JPEG that it begins with."""


class NotAPicture(DesignError):
    """The upload is no picture that is taken; the message says why."""

    title = "This picture cannot be taken"


def checked_picture(content: bytes) -> PictureRow:
    """A PNG or JPEG that opens whole and is not too large once decoded.

    :raises NotAPicture: empty, of another kind, broken, or larger than :data:`MOST_PIXELS` when unpacked.
    """
    from PIL import Image, UnidentifiedImageError  # not needed at the start

    if not content:
        raise NotAPicture("The file is empty", "picture")
    if len(content) > MOST_BYTES:
        raise NotAPicture(f"It is {len(content) / 1e6:.1f} MB; at most {MOST_BYTES / 1e6:.0f} are taken", "picture")
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(content), formats=("PNG", "JPEG")) as picture:
                kind, (width, height) = picture.format, picture.size
                if width * height > MOST_PIXELS or max(width, height) > MOST_SIDE:
                    raise NotAPicture(
                        f"It unpacks to {width} × {height} pixels; at most "
                        f"{MOST_PIXELS // 1_000_000} million are taken. Save it smaller",
                        "picture",
                    )
                picture.load()
    except (UnidentifiedImageError, Image.DecompressionBombWarning, Image.DecompressionBombError) as error:
        raise NotAPicture("It is neither a PNG nor a JPEG that can be opened", "picture") from error
    except (OSError, SyntaxError, ValueError) as error:
        raise NotAPicture(f"It is broken: {str(error)[:80]}", "picture") from error
    return PictureRow(hashlib.sha256(content).hexdigest(), MEDIA[kind or ""], width, height, content)
