"""The px of originals that words lie on, kept in this process for as long as they are asked for."""

from __future__ import annotations

import logging

from common.files import local
from django.core.files.storage import default_storage
from skypane import model
from skypane.errors import SkyPaneError
from skypane.pixels.load import CannotOpen, values_of
from skypane.remembered import Remembered
from skypane.words.copies import Copies, copies

from originals.intake import LARGE_WIDTH, make_preview_again
from originals.models import Original

log = logging.getLogger(__name__)

#: So much is kept of originals, 30 MB of the larger ones.
MOST_BYTES = 62_000_000


def _weight(found: Copies) -> int:
    return sum(c.nbytes for c in found.by_width)


_kept: Remembered[str, Copies] = Remembered(MOST_BYTES, _weight)


def copies_of(original: model.Original) -> Copies | None:
    """The large preview of an original, at several sizes. It is made where there is none yet. None
    where it cannot be had: words are then not measured, and this is said."""
    found = _kept.get(original.sha256)
    if found is not None:
        return found
    try:
        row = Original.objects.filter(id=original.id, sha256=original.sha256).first()
        if row is None:
            return None
        name = row.preview(LARGE_WIDTH)
        if not default_storage.exists(name):
            make_preview_again(row, LARGE_WIDTH)
        with local(name) as path:
            found = copies(values_of(path))
    except (SkyPaneError, CannotOpen, OSError) as error:
        log.warning("words on %s are not measured: %s", original.name, error)
        return None
    _kept.keep(original.sha256, found)
    return found
