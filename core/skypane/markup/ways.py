"""In which way a part is written: as an `img`, a `picture` or the background of an element; and
why."""

from __future__ import annotations

from typing import NamedTuple

from skypane.files.inline import Inline, could_be_inline
from skypane.files.renditions import Files
from skypane.markup.span_css import cut_of, span_css
from skypane.model import Way
from skypane.model.condition import when_words
from skypane.shown.nouns import PartPlan, Plan, ShownSpan

#: What a background costs, whoever chooses it (HTML Standard §4.8.4.4 for the img that it is not).
COSTS = (
    "It has no alt text: whoever does not see it is not told of it.",
    "It is fetched later: the style sheet has to be there first.",
    "It is not loaded lazily: it is fetched wherever it is on the page.",
)


#: What a drawing in the page costs.
COSTS_INLINE = "It is in the page itself: {bytes_} B with every page, and no cache keeps it."


class Written(NamedTuple):
    """The way a part is written in, and why; why it cannot be written in others."""

    way: Way
    why: str
    cannot: dict[Way, str]


def may_differ(plan: Plan) -> bool:
    """Whether some part may be written otherwise than as a `picture`."""
    drawn = any(p.part.way == "svg" for p in plan.written)
    return drawn or plan.layout.decorates or not plan.layout.box


def way_of(plan: Plan, part: PartPlan, files: Files) -> Way:
    """The way alone, which is the same for all parts of most kinds."""
    return written_way(plan, part, files).way if may_differ(plan) else "picture"


def written_way(plan: Plan, part: PartPlan, files: Files) -> Written:
    """As the part says where it can be; else as an `img` where nothing more is needed, else as a
    `picture`. `files` are its own; what stands in for another is written as that is."""
    if part.part.of is not None:
        return written_way(plan, plan.usual_of(part), files)
    cannot: dict[Way, str] = {}
    needs = _needs(plan, part, files)
    if needs:
        cannot["img"] = f"No img alone, since {needs}."
    if why := _no_background(plan, part):
        cannot["background"] = why
    inline = could_be_inline(plan, part)
    if isinstance(inline, str):
        cannot["svg"] = inline
    asked = part.part.way
    if asked is not None and asked not in cannot:
        said = {
            "img": "Chosen: one img says it all.",
            "picture": f"A picture, since {needs}." if needs else "Chosen. An img alone would do.",
            "background": "Chosen: it is decoration.",
            "svg": "Chosen: it has the colour of the text around it."
            if isinstance(inline, Inline) and inline.drawn.one_colour
            else "Chosen. It has several colours, and keeps them.",
        }
        return Written(asked, said[asked], cannot)
    if needs:
        return Written("picture", f"A picture, since {needs}.", cannot)
    return Written("img", "One crop in one format: one img with its list says it all.", cannot)


def _no_background(plan: Plan, part: PartPlan) -> str:
    if part.part.role is not None:
        return "What lies on a picture is not its background."
    if not plan.layout.decorates:
        return "Each of its pictures is content: only a single picture or a banner's can be one."
    return ""


def _needs(plan: Plan, part: PartPlan, files: Files) -> str:
    """What needs more than an `img`, as a clause; "" where nothing does."""
    if plan.layout.box:
        return "the frame around it is laid out with others"
    others = plan.alternatives(part)
    if others:
        when = when_words(others[-1].part.when)
        return f"it shows another one {when}"
    if any(not isinstance(p, ShownSpan) for p in part.spans):
        return "not every span shows one"
    if len(files) > 1:
        return "it is cut otherwise in some spans"
    formats = dict.fromkeys(r.format for _, mine in files for r in mine)
    if len(formats) > 1:
        names = {"avif": "AVIF", "webp": "WebP", "jpeg": "JPEG", "png": "PNG", "svg": "SVG"}
        return f"it comes as {' and '.join(names[f] for f in formats)}"
    if any(span_css(p, cut_of(p)).exact for p in part.spans):
        return "its aim is held by lengths of the frame around it"
    return ""
