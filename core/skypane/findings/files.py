"""What is wrong with the files."""

from __future__ import annotations

import math
from collections.abc import Iterator

from skypane.files.groups import groups, lists_of
from skypane.files.renditions import SHARP_ENOUGH
from skypane.files.rows import FileRow
from skypane.findings.rule import Case, Found, rule


@rule("soft", "wrong", "files", "Bring a larger original, or make the frame smaller.")
def soft(case: Case) -> Iterator[Found]:
    """An original has too few px for a density that is offered. Also where that density has no file
    of its own, because it would be the same as a lower one's."""
    for group in groups(case.part, lists_of(case.site, case.plan.placement, case.part.part)):
        if group.original.vector:  # sharp at any size
            continue
        mine: list[FileRow] | None = None
        for density in case.site.densities:
            needed = math.ceil(group.needed * density)
            has = min(group.crop.w, needed)
            if has / needed >= SHARP_ENOUGH:
                continue
            if mine is None:
                mine = [r for r in case.rows if r.spans == group.letters]
            if not mine:
                continue
            stem = next((r.stem for r in mine if r.density == density), None)
            if group.by_width and density == case.site.densities[-1]:
                stem = mine[-1].stem
            without = f"{mine[0].stem} is soft at {density:g}x, which has no file of its own"
            said = f"{stem} is soft" if stem else without
            yield (
                group.letters,
                f"{said}, {has / needed:.2f}×: {needed} px needed, the original has {has} px there."
                f" Sharp up to {mine[0].sharp_to_density:g}x.",
            )
