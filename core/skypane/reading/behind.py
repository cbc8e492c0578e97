"""What is seen of the pictures of a placement until their files are there."""

from __future__ import annotations

import re

from skypane.files.blurred import may_be_blurred
from skypane.reading.nouns import BehindReading
from skypane.shown.nouns import Plan

_URL = re.compile(r"data:image/png;base64,[^\"]*")


def behind_reading(plan: Plan, css: str) -> BehindReading | None:
    """What of its style sheet holds a few px of its pictures; None where it has none of them."""
    if not plan.placement.blurred:
        return None
    sizes = [len(url) for url in _URL.findall(css)]
    return BehindReading(
        all_bytes=sum(sizes),
        most_bytes=max(sizes, default=0),
        without=tuple(o.name for o in plan.originals.values() if not may_be_blurred(o)),
    )
