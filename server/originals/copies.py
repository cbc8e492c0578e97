"""The px of originals that words lie on, kept in this process for as long as they are asked for."""

from __future__ import annotations

import logging
from dataclasses import replace
from functools import partial

from common.files import local
from django.core.files.storage import default_storage
from skypane import model
from skypane.errors import SkyPaneError
from skypane.pixels.load import CannotOpen, values_of
from skypane.remembered import Remembered
from skypane.words.copies import Bytes, Copies, copies, with_opacity

from originals.intake import LARGE_WIDTH, make_preview_again
from originals.models import Original

log = logging.getLogger(__name__)

#: So much is kept of originals but for the largest copy, which takes three quarters: 10 MB of a
#: wide one. And so much of those largest ones, of which the tall ones take 50 MB.
MOST_BYTES, MOST_BYTES_OF_WHOLE = 60_000_000, 90_000_000


def _weight(found: Copies) -> int:
    return sum(c.nbytes for c in found.by_width)


def _weight_of_whole(found: Bytes) -> int:
    return found.nbytes


_kept: Remembered[str, Copies] = Remembered(MOST_BYTES, _weight)
_whole: Remembered[str, Bytes] = Remembered(MOST_BYTES_OF_WHOLE, _weight_of_whole)


def copies_of(original: model.Original) -> Copies | None:
    """The large preview of an original, at several sizes. It is made where there is none yet. None
    where it cannot be had: words are then not measured, and this is said."""
    found = _kept.get(original.sha256)
    if found is None:
        values = _values(original)
        if values is None:
            return None
        found = copies(values)
        whole, *smaller = found.by_width
        if smaller:
            _whole.keep(original.sha256, whole)
            again = whole.shape[1], partial(_whole_of, original, smaller[0])
            found = replace(found, by_width=tuple(smaller), larger=again)
        _kept.keep(original.sha256, found)
    return found


def _whole_of(original: model.Original, smaller: Bytes) -> Bytes:
    """The largest copy once more; the next smaller one where it can no longer be had."""
    found = _whole.get(original.sha256)
    if found is None:
        values = _values(original)
        if values is None:
            return smaller
        found = with_opacity(values)
        _whole.keep(original.sha256, found)
    return found


def _values(original: model.Original) -> Bytes | None:
    """The sRGB values of the large preview, (height, width, 3 or 4)."""
    try:
        row = Original.objects.filter(id=original.id, sha256=original.sha256).first()
        if row is None:
            return None
        name = row.preview(LARGE_WIDTH)
        if not default_storage.exists(name):
            make_preview_again(row, LARGE_WIDTH)
        with local(name) as path:
            return values_of(path)
    except (SkyPaneError, CannotOpen, OSError) as error:
        log.warning("words on %s are not measured: %s", original.name, error)
        return None
