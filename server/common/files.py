"""Stored files: kept whole or not at all, and as paths on this machine whatever the storage is."""

from __future__ import annotations

import hashlib
import os
import shutil
import tempfile
import uuid
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from django.conf import settings
from django.core.files.base import File
from django.core.files.storage import default_storage
from skypane.errors import NoRoom


@contextmanager
def room() -> Iterator[None]:
    """Turns a full disk, or a quota that is used up, into the sentence that says so."""
    try:
        yield
    except OSError as error:
        if NoRoom.means(error):
            raise NoRoom from error
        raise


@contextmanager
def work_folder() -> Iterator[Path]:
    """A folder that goes when the work is done; one that a killed process leaves is swept up later.
    What finds no room while the work goes on raises NoRoom."""
    with room():
        settings.WORK_ROOT.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryDirectory(dir=settings.WORK_ROOT) as folder:
            yield Path(folder)


@contextmanager
def local(name: str) -> Iterator[Path]:
    """A path from which the stored file can be read; a temporary copy where the storage is
    remote."""
    try:
        path = Path(default_storage.path(name))
    except NotImplementedError:
        with work_folder() as folder:
            copy = folder / Path(name).name
            with default_storage.open(name) as stored, copy.open("wb") as f:
                shutil.copyfileobj(stored, f)
            yield copy
        return
    yield path


def sha256_of(path: Path) -> str:
    with path.open("rb") as f:
        return hashlib.file_digest(f, "sha256").hexdigest()


def is_intact(name: str, size_bytes: int, sha256: str) -> bool:
    """Whether a file of this size and content is stored under this name."""
    try:
        if default_storage.size(name) != size_bytes:
            return False
        with local(name) as path:
            return sha256_of(path) == sha256
    except OSError:
        return False


def keep(path: Path, name: str) -> None:
    """Store the file under this very name. One that is there already is left if it is the same to
    the byte, and replaced if not.

    The name never stands for half a file: it is written under another one, flushed to the disk and
    renamed. Raises NoRoom.
    """
    if default_storage.exists(name) and is_intact(name, path.stat().st_size, sha256_of(path)):
        _touch(name)
        return
    try:
        target = Path(default_storage.path(name))
    except NotImplementedError:  # remote storages take a whole object or none
        if default_storage.exists(name):
            default_storage.delete(name)
        with path.open("rb") as f:
            default_storage.save(name, File(f))
        return
    with room():
        _write(path, target)


def _write(path: Path, target: Path) -> None:
    target.parent.mkdir(parents=True, exist_ok=True)
    part = target.with_name(f".{target.name}.{uuid.uuid4().hex}.part")
    try:
        with path.open("rb") as source, part.open("wb") as f:
            shutil.copyfileobj(source, f, 1 << 20)
            f.flush()
            os.fsync(f.fileno())
        part.chmod(0o644)
        part.replace(target)
    finally:
        with suppress(FileNotFoundError):
            part.unlink()
    folder = os.open(target.parent, os.O_RDONLY)
    try:
        os.fsync(folder)
    finally:
        os.close(folder)


def _touch(name: str) -> None:
    """Found and used again: as new to whoever sweeps up what nothing refers to."""
    with suppress(NotImplementedError, OSError):
        os.utime(default_storage.path(name))
