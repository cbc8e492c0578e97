"""The rules of Sky Pane: what of a picture shows, which files are needed, what a browser takes.

Nothing here knows a database, a web framework or an interface. Values go in, values come out; only
`pixels` and `cli` touch files.

The rooms, from the ground up: `model` (the nouns), `widths` (spans, frames, curves over all
viewport widths), `treatments` (what holds in a span), `layouts` (a module per kind of placement),
`shown` (what shows of a part), `files`, `markup`, `advice`, `findings`, `reading` (all of it for a
desk). Beside them `picks`: which file a browser takes from any markup.
"""

from skypane.advice.walk import advise, advise_part, applied
from skypane.changes import differences
from skypane.errors import InvalidPlan, SkyPaneError, UnreadablePicture
from skypane.files.renditions import renditions
from skypane.findings import findings_of
from skypane.handover import blueprint
from skypane.layouts import Layout, kinds
from skypane.model import Original, Part, Placement, Site, Treatment, picture
from skypane.picks import Environment, pick, reach, read_markup
from skypane.proof import predict
from skypane.reading import Moving, Reading, read, read_moving
from skypane.shown.plan import Plan, ShownSpan, SpanPlan, plan
from skypane.treatments import resolve, respan

__all__ = [
    "Environment",
    "InvalidPlan",
    "Layout",
    "Moving",
    "Original",
    "Part",
    "Placement",
    "Plan",
    "Reading",
    "ShownSpan",
    "Site",
    "SkyPaneError",
    "SpanPlan",
    "Treatment",
    "UnreadablePicture",
    "advise",
    "advise_part",
    "applied",
    "blueprint",
    "differences",
    "findings_of",
    "kinds",
    "pick",
    "picture",
    "plan",
    "predict",
    "reach",
    "read",
    "read_markup",
    "read_moving",
    "renditions",
    "resolve",
    "respan",
]
