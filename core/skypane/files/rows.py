"""The files in the order in which they are shown."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping

from skypane.files.kept import LeftOut
from skypane.files.renditions import SHARP_ENOUGH, Files
from skypane.model import Format, Rendition
from skypane.values import Answer


class FileFormat(Answer):
    format: Format
    name: str
    key: str
    size_bytes: int | None = None
    left_out: bool = False  # no smaller than an older format: it is not handed over
    quick: bool = False  # its bytes are of a file that was made quickly, to look at


class FileRow(Answer):
    """One px size of one group of spans, in all its formats. `density` is None where the file is
    offered by its width. `share` is of the px needed; where it is so far below 1 that somebody may
    see it, the files are `soft`."""

    part: int
    spans: tuple[str, ...]
    density: float | None
    descriptor: str
    width_px: int
    height_px: int
    needed_px: int
    share: float
    soft: bool
    sharp_to_density: float
    stem: str
    original: int
    formats: tuple[FileFormat, ...]


def by_size(files: Iterable[Rendition]) -> tuple[tuple[Rendition, ...], ...]:
    """The renditions of a group by their px size, ascending, each in all its formats."""
    found: dict[tuple[float | None, int], list[Rendition]] = {}
    for r in files:
        found.setdefault((r.density, r.width_px), []).append(r)
    return tuple(tuple(same) for same in found.values())


def stem_of(file: Rendition) -> str:
    """Its name without the ending, which its formats share."""
    return file.name.rpartition(".")[0]


def file_rows(
    files: Files,
    made: Mapping[str, int],
    quick: Collection[str] = (),
    left_out: Iterable[LeftOut] = (),
) -> tuple[FileRow, ...]:
    """`made` gives the bytes of those renditions that exist already, by key; of those in `quick`
    only as they were made quickly."""
    gone = {(g.part, g.spans, g.format) for g in left_out}
    rows = []
    for group, mine in files:
        for same in by_size(mine):
            first = same[0]
            rows.append(
                FileRow(
                    part=group.part,
                    spans=group.letters,
                    density=first.density,
                    descriptor=first.descriptor,
                    width_px=first.width_px,
                    height_px=first.height_px,
                    needed_px=first.needed_px,
                    share=round(min(1.0, first.share), 4),
                    soft=first.share < SHARP_ENOUGH,
                    sharp_to_density=round(group.crop.w / group.needed, 2),
                    stem=stem_of(first),
                    original=first.original,
                    formats=tuple(
                        FileFormat(
                            format=r.format,
                            name=r.name,
                            key=r.key,
                            size_bytes=made.get(r.key),
                            quick=r.key in quick,
                            left_out=(group.part, group.letters, r.format) in gone,
                        )
                        for r in same
                    ),
                )
            )
    return tuple(rows)
