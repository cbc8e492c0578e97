"""What shows in place of a picture whose file does not come: another one, put there by a script
(HTML Standard §4.8.4.3.10 fires `error` at its `img`)."""

from __future__ import annotations

from pathlib import Path

from skypane.files.names import EXTENSIONS, file_stem, hash_mark
from skypane.files.renditions import Files, formats_for, rendition_key
from skypane.geometry import WHOLE
from skypane.markup.scripts import Script, brings
from skypane.model import Rendition
from skypane.shown.nouns import PartPlan, Plan
from skypane.shown.parts import crop_px

#: As wide as this at most: it is one file for all widths, and is hardly ever seen.
MOST_WIDTH_PX = 960


def _is_wanted(plan: Plan) -> bool:
    return plan.substitute is not None


SCRIPT = brings(
    Script(
        Path(__file__).with_name("substitute.js"),
        600,
        _is_wanted,
        "Puts another picture in the place of one whose file does not come; without it the alt text"
        " stands there.",
    )
)


def substitute_of(plan: Plan) -> Rendition | None:
    """The one file that shows in place of those that do not come, in a format that every browser
    knows; None where none has been chosen."""
    original = plan.substitute
    if original is None:
        return None
    crop = crop_px(original, WHOLE)
    width = min(MOST_WIDTH_PX, crop.w)
    size = (width, max(1, round(width * crop.h / crop.w)))
    format_ = formats_for(plan, original)[-1]
    likeness, hashed = plan.site.likeness, plan.site.hand_over.hashed
    key = rendition_key(original.sha256, crop, size, format_, likeness)
    called = f"{plan.placement.called}-instead"
    stem = file_stem(called, None, size[0], plan.site.naming, plan.placement.page)
    return Rendition(
        original=original.id,
        crop=crop,
        width_px=size[0],
        height_px=size[1],
        format=format_,
        density=None,
        likeness=likeness,
        spans=tuple(s.letter for s in plan.spans),
        name=f"{stem}{hash_mark(key) if hashed else ''}.{EXTENSIONS[format_]}",
        needed_px=size[0],
        key=key,
    )


def all_files(plan: Plan, files: Files) -> list[Rendition]:
    """The files of a placement, and what shows where one of them does not come."""
    substitute = substitute_of(plan)
    return [r for _, made in files for r in made] + ([substitute] if substitute else [])


def instead_of(plan: Plan, part: PartPlan) -> Rendition | None:
    """What shows in place of the files of a part: nothing in place of what lies on a picture."""
    return substitute_of(plan) if part.part.role is None else None
