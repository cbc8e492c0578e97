"""Which formats are worth handing over (02-rules §10): a newer one only where it is smaller."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from skypane.files.groups import Group
from skypane.files.renditions import Files
from skypane.model import Format, Rendition
from skypane.values import Answer


class LeftOut(NamedTuple):
    """A format that a group of spans goes without: its files weigh `size_bytes` together, those of
    `instead`, which every browser that knows it knows too, only `against_bytes`."""

    part: int
    spans: tuple[str, ...]
    format: Format
    size_bytes: int
    instead: Format
    against_bytes: int

    @property
    def sentence(self) -> str:
        return (
            f"{self.format} is left out for span {', '.join(self.spans)}: {self.size_bytes} bytes,"
            f" {self.instead} {self.against_bytes}."
        )


def left_out(files: Files, made: Mapping[str, int]) -> tuple[LeftOut, ...]:
    """What is left out, as far as bytes are known. `made` gives bytes by key."""
    return tuple(out for group, mine in files for out in _of_group(group, _totals(mine, made)))


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


def _of_group(group: Group, totals: Mapping[Format, int | None]) -> list[LeftOut]:
    least: tuple[Format, int] | None = None
    out: list[LeftOut] = []
    for format_, total in reversed(list(totals.items())):  # from the one that every browser knows
        if total is None or group.original.frames > 1:  # a still picture is no smaller version
            continue
        if least is not None and total >= least[1]:
            out.append(LeftOut(group.part, group.letters, format_, total, *least))
        else:
            least = (format_, total)
    return out[::-1]


def without(files: Files, gone: tuple[LeftOut, ...]) -> Files:
    """The files without those formats. A file that another group has too stays for that one."""
    named = {(g.part, g.spans, g.format) for g in gone}
    return tuple(
        (group, tuple(r for r in mine if (group.part, group.letters, r.format) not in named))
        for group, mine in files
    )
