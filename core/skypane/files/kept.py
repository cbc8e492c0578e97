"""Which formats are worth handing over (rules §10): a newer one only where it is smaller."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from skypane.files.groups import Group
from skypane.files.renditions import Files
from skypane.model import Format, Rendition
from skypane.values import Answer


class LeftOut(NamedTuple):
    """A format that a group of spans goes without: of `width_px` its file weighs `size_bytes`, that
    of `instead`, which every browser that knows it knows too, only `against_bytes`."""

    part: int
    spans: tuple[str, ...]
    format: Format
    size_bytes: int
    instead: Format
    against_bytes: int
    width_px: int

    @property
    def sentence(self) -> str:
        return (
            f"{self.format} is left out for span {', '.join(self.spans)}: of {self.width_px} px it"
            f" has {self.size_bytes} bytes, {self.instead} {self.against_bytes}."
        )


def left_out(files: Files, made: Mapping[str, int]) -> tuple[LeftOut, ...]:
    """What is left out, as far as bytes are known. `made` gives bytes by key."""
    return tuple(out for group, mine in files for out in _of_group(group, mine, made))


class Saving(Answer):
    """How much lighter the lightest format of a group of spans is than the one that every browser
    knows, as a share of its bytes, all sizes together."""

    part: int
    spans: tuple[str, ...]
    format: Format
    against: Format
    share: float


def savings(files: Files, made: Mapping[str, int]) -> tuple[Saving, ...]:
    """One per group whose files are all made, if there is anything to save."""
    out = []
    for group, mine in files:
        known = {f: size for f, size in _totals(mine, made).items() if size}
        *newer, against = dict.fromkeys(r.format for r in mine)
        if len(known) < len(newer) + 1 or not newer:
            continue
        best = min(newer, key=lambda f: known[f])
        if known[best] < known[against]:
            share = round(1 - known[best] / known[against], 4)
            out.append(
                Saving(
                    part=group.part, spans=group.letters, format=best, against=against, share=share
                )
            )
    return tuple(out)


def _totals(mine: Sequence[Rendition], made: Mapping[str, int]) -> dict[Format, int | None]:
    """Bytes of all sizes per format, most modern first; None where one is not known."""
    totals: dict[Format, int | None] = {}
    for r in mine:
        size, before = made.get(r.key), totals.get(r.format, 0)
        totals[r.format] = None if size is None or before is None else before + size
    return totals


def _of_group(group: Group, mine: Sequence[Rendition], made: Mapping[str, int]) -> list[LeftOut]:
    """A newer format is handed over only if every file of it is smaller than that of the same px
    in the format before: no browser is given a heavier file for being newer."""
    if group.original.frames > 1:  # a still picture is no smaller version
        return []
    before: tuple[Format, dict[int, int]] | None = None
    out: list[LeftOut] = []
    for format_ in reversed(list(dict.fromkeys(r.format for r in mine))):
        sizes = {r.width_px: made.get(r.key) for r in mine if r.format == format_}
        known = {width: size for width, size in sizes.items() if size is not None}
        if len(known) < len(sizes):
            continue
        if before is not None:
            instead, least = before
            heavier = [w for w, size in known.items() if size >= least.get(w, size + 1)]
            if heavier:
                worst = max(heavier, key=lambda w: known[w] / least[w])
                told = (known[worst], instead, least[worst], worst)
                out.append(LeftOut(group.part, group.letters, format_, *told))
                continue
        before = (format_, known)
    return out[::-1]


def without(files: Files, gone: tuple[LeftOut, ...]) -> Files:
    """The files without those formats. A file that another group has too stays for that one."""
    named = {(g.part, g.spans, g.format) for g in gone}
    return tuple(
        (group, tuple(r for r in mine if (group.part, group.letters, r.format) not in named))
        for group, mine in files
    )
