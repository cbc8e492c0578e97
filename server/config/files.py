"""Stored files as paths on this machine, whatever the storage is."""

from __future__ import annotations

import shutil
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from django.core.files.base import File
from django.core.files.storage import default_storage


@contextmanager
def local(name: str) -> Iterator[Path]:
    """A path from which the stored file can be read; a temporary copy where the storage is remote."""
    try:
        path = Path(default_storage.path(name))
    except NotImplementedError:
        with tempfile.NamedTemporaryFile(suffix=Path(name).suffix) as copy:
            with default_storage.open(name) as stored:
                shutil.copyfileobj(stored, copy)
            copy.flush()
            yield Path(copy.name)
        return
    yield path


def keep(path: Path, name: str) -> None:
    """Store the file under this very name; one that is there already has the same content."""
    if default_storage.exists(name):
        return
    with path.open("rb") as f:
        default_storage.save(name, File(f))
