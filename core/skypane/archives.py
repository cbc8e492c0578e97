"""Zip archives from outside, looked at before anything of them is unpacked (APPNOTE 6.3.10)."""

from __future__ import annotations

import stat
import struct
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import BinaryIO

from skypane.errors import SkyPaneError

MOST_ENTRIES = 25_000
#: More than this is not unpacked, whatever it weighs as a zip.
MOST_UNPACKED_BYTES = 20_000_000_000
#: An entry that grows by more than this and is large is made to fill a disk.
MOST_GROWTH = 200
_LARGE = 50_000_000


class BadArchive(SkyPaneError):
    """A zip that is damaged, or made to do harm."""


@contextmanager
def opened(file: BinaryIO | Path) -> Iterator[zipfile.ZipFile]:
    """A zip whose entries are all safe to unpack. Raises BadArchive."""
    _count(file)
    try:
        with zipfile.ZipFile(file) as archive:
            _check(archive.infolist())
            yield archive
    except (zipfile.BadZipFile, zipfile.LargeZipFile, NotImplementedError, EOFError) as error:
        raise BadArchive(f"This zip cannot be read: {str(error).rstrip('.').lower()}.") from None
    except RuntimeError as error:
        if "password" in str(error) or "encrypt" in str(error):
            raise BadArchive("This zip is locked with a password. Export it without.") from None
        raise


#: The end of a zip's directory and what stands before it in one of more than 4 GB, and an entry of
#: the directory (APPNOTE 6.3.10, §4.3.12, §4.3.14 to §4.3.16).
_END, _END_64, _LOCATOR, _ENTRY = b"PK\5\6", b"PK\6\6", b"PK\6\7", b"PK\1\2"
_MOST_COMMENT = 0xFFFF
#: More bytes than these a directory of so many entries has only where somebody means harm.
_MOST_DIRECTORY_BYTES = MOST_ENTRIES * 600


def _count(file: BinaryIO | Path) -> None:
    """Count the entries of a directory, whatever it says of itself, before any of them is made
    sense of, which takes a hundred times as long. Raises BadArchive for too many; what is no zip is
    left to be told by whoever reads it."""
    if isinstance(file, Path):
        with file.open("rb") as f:
            _count(f)
        return
    at = file.seek(0, 2)
    file.seek(max(0, at - _MOST_COMMENT - 100))
    tail = file.read()
    end = tail.rfind(_END)
    if end < 0 or len(tail) < end + 22:
        file.seek(0)
        return
    size = struct.unpack("<L", tail[end + 12 : end + 16])[0]
    before = at - len(tail) + end
    if end >= 20 and tail[end - 20 : end - 16] == _LOCATOR:
        (where,) = struct.unpack("<Q", tail[end - 12 : end - 4])
        file.seek(min(where, at))
        record = file.read(56)
        if record[:4] == _END_64 and len(record) == 56:
            size = struct.unpack("<Q", record[40:48])[0]
            before = where
    if size > _MOST_DIRECTORY_BYTES:
        raise BadArchive(f"The directory of this zip has {size / 1e6:.0f} MB, more than is read.")
    # something may stand before the zip: its directory ends where the end begins
    file.seek(max(0, before - size))
    directory = file.read(size)
    file.seek(0)
    n, i = 0, 0
    while directory[i : i + 4] == _ENTRY and i + 46 <= len(directory):
        n += 1
        if n > MOST_ENTRIES:
            raise BadArchive(f"This zip has more than {MOST_ENTRIES} entries; no site has so many.")
        i += 46 + sum(struct.unpack("<HHH", directory[i + 28 : i + 34]))


def _check(entries: list[zipfile.ZipInfo]) -> None:
    total, names = 0, set()
    for entry in entries:
        name = entry.filename
        parts = name.replace("\\", "/").split("/")
        if name.startswith(("/", "\\")) or ".." in parts or ":" in parts[0] or "\0" in name:
            raise BadArchive(f"This zip has an entry outside of itself: {name[:80]}.")
        if stat.S_ISLNK(entry.external_attr >> 16):
            raise BadArchive(f"This zip has a link in it, which is not followed: {name[:80]}.")
        if name in names:
            raise BadArchive(f"This zip has two entries called {name[:80]}.")
        names.add(name)
        total += entry.file_size
        if entry.file_size > _LARGE and entry.file_size > MOST_GROWTH * max(1, entry.compress_size):
            raise BadArchive(f"{name[:80]} would unpack to {entry.file_size / 1e6:.0f} MB.")
    if total > MOST_UNPACKED_BYTES:
        raise BadArchive(f"This zip would unpack to {total / 1e9:.0f} GB, more than is taken.")
