"""What differs between two deliveries, and why a file is made."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any, Literal

from skypane.files.names import first_name
from skypane.model import Rendition
from skypane.values import Noun


def why_made(r: Rendition, original: str, before: Mapping[str, Any] | None) -> str:
    """Why a file cannot be taken from the delivery before, whose manifest says `before` of the file
    of this name; `original` is the hash of the original now."""
    if before is None:
        return "not there before"
    if before.get("key") == r.key:
        return "its file was cleared"
    changed = []
    if before.get("original_sha256") != original:
        changed.append("another original" if before.get("original") else "the original")
    elif before.get("crop") != r.crop.model_dump():
        changed.append("another cut")
    if (before.get("width_px"), before.get("height_px")) != (r.width_px, r.height_px):
        changed.append("another size")
    return " and ".join(changed) if changed else "another likeness or newer encoders"


class FileChange(Noun):
    """One file that only one of two deliveries has, or both with other bytes: a file that shows
    another cut now has another name, the later one of which is told."""

    name: str
    change: Literal["added", "removed", "heavier", "lighter", "other"]
    before_bytes: int | None
    after_bytes: int | None


class DeliveryChanges(Noun):
    """What differs, the greatest change of bytes first; `same` files are equal to the byte."""

    files: tuple[FileChange, ...]
    same: int
    before_bytes: int
    after_bytes: int


Entries = Iterable[Mapping[str, Any]]


def changes_between(before: Entries, after: Entries) -> DeliveryChanges:
    """From the `files` of two manifests."""
    old, new = ({first_name(f["name"]): f for f in files} for files in (before, after))
    found, same = [], 0
    for first in sorted({*old, *new}):
        was, is_ = old.get(first), new.get(first)
        name = (is_ or was or {})["name"]
        if was and is_ and was["sha256"] == is_["sha256"]:
            same += 1
            continue
        a, b = (f["bytes"] if f else None for f in (was, is_))
        change: Literal["added", "removed", "heavier", "lighter", "other"] = "other"
        if a is None or b is None:
            change = "added" if a is None else "removed"
        elif a != b:
            change = "heavier" if b > a else "lighter"
        found.append(FileChange(name=name, change=change, before_bytes=a, after_bytes=b))
    found.sort(key=lambda f: -abs((f.after_bytes or 0) - (f.before_bytes or 0)))
    return DeliveryChanges(
        files=tuple(found),
        same=same,
        before_bytes=sum(f["bytes"] for f in old.values()),
        after_bytes=sum(f["bytes"] for f in new.values()),
    )
