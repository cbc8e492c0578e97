"""Zip archives from outside, looked at before anything of them is unpacked (APPNOTE 6.3.10)."""

from __future__ import annotations

import stat
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


def _check(entries: list[zipfile.ZipInfo]) -> None:
    if len(entries) > MOST_ENTRIES:
        raise BadArchive(f"This zip has {len(entries)} entries; a site has at most {MOST_ENTRIES}.")
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
