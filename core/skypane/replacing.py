"""A better file in an original's place: whether it fits, and what becomes of what hangs on it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from skypane.model import Original

#: Two pictures whose ratios differ by less are cut alike: half a px in a hundred.
SAME_RATIO = 0.005

#: Where areas are not whole, in words, with their names.
Failing = Mapping[str, Sequence[str]]


def has_same_ratio(a: Original, b: Original) -> bool:
    return abs(a.width_px * b.height_px / (a.height_px * b.width_px) - 1) < SAME_RATIO


def no_longer_fits(before: Original, after: Original, used: Sequence[str]) -> str:
    """Why a file of another ratio should not simply take an original's place. `used` says where it
    is used."""
    names = ", ".join(a.name for a in before.areas)
    areas = f" Its areas ({names}) would sit elsewhere." if before.areas else ""
    where = f" It is used in {', '.join(used)}." if used else ""
    return (
        f"{after.name} is {after.width_px} × {after.height_px}, another ratio than"
        f" {before.width_px} × {before.height_px}.{areas}{where} Bring it as an original of its"
        " own, or replace all the same and look at the areas."
    )


def after_replacing(
    before: Original, after: Original, failing_before: Failing, failing_after: Failing
) -> list[str]:
    """What has changed by it, as sentences."""
    said = []
    if not has_same_ratio(before, after):
        names = ", ".join(a.name for a in before.areas)
        look = "The ratio is another: look at the focal point"
        said.append(look + (f" and at {names}." if names else "."))
    if after.width_px < before.width_px:
        said.append(
            f"It has fewer px than before: {after.width_px} wide instead of {before.width_px}."
        )
    for where in sorted({*failing_before, *failing_after}):
        then, now = failing_before.get(where, []), failing_after.get(where, [])
        worse = [n for n in now if n not in then]
        better = [n for n in then if n not in now]
        if worse:
            said.append(f"No longer whole in {where}: {', '.join(worse)}.")
        if better:
            said.append(f"Whole again in {where}: {', '.join(better)}.")
    return said
