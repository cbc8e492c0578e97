"""The rules of Sky Pane: what of a picture shows, which files are needed, what a browser takes.

Nothing here knows a database, a web framework or an interface. Values go in, values come out; only
`pixels` and `cli` touch files.

The rooms, from the ground up: `model` (the nouns), `widths` (spans, frames, curves over all
viewport widths), `treatments` (what holds in a span), `layouts` (a module per kind of placement),
`shown` (what shows of a part), `files`, `markup`, `advice`, `findings`, `reading` (all of it for a
desk). Beside them `picks`: which file a browser takes from any markup.

“rules §4” is section 4 of docs/rules.md.
"""

from skypane import kinds as _kinds  # noqa: F401  # makes them known
from skypane.advice.crops import CropsOfAll, crops_of_all
from skypane.advice.others import belongs
from skypane.advice.remedies import Advice, Remedy
from skypane.advice.walk import advise, advise_part, applied
from skypane.carried import page_respanned, respan, respanned
from skypane.changes import differences
from skypane.edits import Edit, edited
from skypane.errors import InvalidPlan, SkyPaneError, UnreadablePicture
from skypane.files.renditions import renditions
from skypane.findings import findings_of
from skypane.found import Found, found_in
from skypane.handover import Asked, AskedPage, FileFacts, asked_for, blueprint, finish
from skypane.layouts import Layout, begun, kind_names
from skypane.model import Original, Part, Placement, Site, Treatment, picture
from skypane.named import named_from, parted, using
from skypane.paged import page_in_spans
from skypane.picks import Environment, pick, reach, read_markup
from skypane.proof import predict
from skypane.reading import Moving, PageReading, Reading, read, read_moving, read_page
from skypane.reading.code import code_as
from skypane.replacing import after_replacing, has_same_ratio, no_longer_fits
from skypane.shown.keeps import failing
from skypane.shown.nouns import Plan, ShownSpan, SpanPlan
from skypane.shown.plan import plan
from skypane.shown.safe import SafeArea, safe_area_of
from skypane.strip import StripFrame, StripScreen, strip_frame, strip_of, strip_screens
from skypane.treatments import check_frames, resolve, seen_in, showing

__all__ = [
    "Advice",
    "Asked",
    "AskedPage",
    "CropsOfAll",
    "Edit",
    "Environment",
    "FileFacts",
    "Found",
    "InvalidPlan",
    "Layout",
    "Moving",
    "Original",
    "PageReading",
    "Part",
    "Placement",
    "Plan",
    "Reading",
    "Remedy",
    "SafeArea",
    "ShownSpan",
    "Site",
    "SkyPaneError",
    "SpanPlan",
    "StripFrame",
    "StripScreen",
    "Treatment",
    "UnreadablePicture",
    "advise",
    "advise_part",
    "after_replacing",
    "applied",
    "asked_for",
    "begun",
    "belongs",
    "blueprint",
    "check_frames",
    "code_as",
    "crops_of_all",
    "differences",
    "edited",
    "failing",
    "findings_of",
    "finish",
    "found_in",
    "has_same_ratio",
    "kind_names",
    "named_from",
    "no_longer_fits",
    "page_in_spans",
    "page_respanned",
    "parted",
    "pick",
    "picture",
    "plan",
    "predict",
    "reach",
    "read",
    "read_markup",
    "read_moving",
    "read_page",
    "renditions",
    "resolve",
    "respan",
    "respanned",
    "safe_area_of",
    "seen_in",
    "showing",
    "strip_frame",
    "strip_of",
    "strip_screens",
    "using",
]
