"""The files in the order in which they are shown."""

from __future__ import annotations

from collections.abc import Mapping

from skypane.files.renditions import SHARP_ENOUGH, Files
from skypane.model import Format
from skypane.values import Answer


class FileFormat(Answer):
    format: Format
    name: str
    key: str
    size_bytes: int | None = None


class FileRow(Answer):
    """One px size of one group of spans, in all its formats. `share` is of the px needed; where it
    is so far below 1 that somebody may see it, the files are `soft`."""

    part: int
    spans: tuple[str, ...]
    density: float
    width_px: int
    height_px: int
    needed_px: int
    share: float
    soft: bool
    sharp_to_density: float
    stem: str
    original: int
    formats: tuple[FileFormat, ...]


def file_rows(files: Files, made: Mapping[str, int]) -> tuple[FileRow, ...]:
    """`made` gives the bytes of those renditions that exist already, by key."""
    rows = []
    for group, mine in files:
        for density in dict.fromkeys(r.density for r in mine):
            same = [r for r in mine if r.density == density]
            first = same[0]
            rows.append(
                FileRow(
                    part=group.part,
                    spans=group.letters,
                    density=density,
                    width_px=first.width_px,
                    height_px=first.height_px,
                    needed_px=first.needed_px,
                    share=round(min(1.0, first.share), 4),
                    soft=first.share < SHARP_ENOUGH,
                    sharp_to_density=round(group.crop.w / group.needed, 2),
                    stem=first.name.rpartition(".")[0],
                    original=first.original,
                    formats=tuple(
                        FileFormat(
                            format=r.format, name=r.name, key=r.key, size_bytes=made.get(r.key)
                        )
                        for r in same
                    ),
                )
            )
    return tuple(rows)
