"""The px of originals that words lie on, kept in this process for as long as they are asked for."""

from __future__ import annotations

import logging
from collections import OrderedDict
from threading import Lock

from config.files import local
from django.core.files.storage import default_storage
from skypane import model
from skypane.errors import SkyPaneError
from skypane.pixels.load import CannotOpen, values_of
from skypane.words.copies import Copies, copies

from originals.intake import LARGE_WIDTH, make_preview_again
from originals.models import Original

log = logging.getLogger(__name__)

#: How many originals are kept: 30 MB each at most.
MOST = 4

_kept: OrderedDict[str, Copies] = OrderedDict()
_lock = Lock()


def copies_of(original: model.Original) -> Copies | None:
    """The large preview of an original, at several sizes. It is made where there is none yet. None
    where it cannot be had: words are then not measured, and this is said."""
    with _lock:
        found = _kept.get(original.sha256)
        if found is not None:
            _kept.move_to_end(original.sha256)
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
    with _lock:
        _kept[original.sha256] = found
        while len(_kept) > MOST:
            _kept.popitem(last=False)
    return found
