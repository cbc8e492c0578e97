"""The colours of the pages that placements stand on."""

from __future__ import annotations

from skypane.model.treatment import Colour
from skypane.values import Noun


class PageColours(Noun):
    """What lies behind everything on a page, and the colour of its text. Captions and texts beside
    pictures have these, as do words that stand below a picture without a background of its own."""

    ground: Colour = "#ffffff"
    ink: Colour = "#1a1a1a"


#: What pages are where nobody has said otherwise (common practice).
USUAL_COLOURS = PageColours()
