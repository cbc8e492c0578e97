"""Something that lies on a keep area."""

from __future__ import annotations

import numpy as np

from skypane.findings.rule import Matter, plain, widths_at
from skypane.shown.nouns import SpanPlan


def covers_area(what: str, name: str, p: SpanPlan, at: np.ndarray, most: float) -> Matter:
    """Something lies on a keep area, `at` some widths of a span."""
    sentence = f"{what} cover{'' if what.endswith('s') else 's'} {plain(name)} {{where}}, at most"
    percent = max(1, round(most * 100))
    runs = widths_at(p.viewport_w, at)
    return Matter(f"covers {name}", p.span.letter, runs, most, f"{sentence} {percent} % of it.")
