"""Banners to try rules on: made-up pictures, words, and what a plan says of them."""

import numpy as np
from skypane import model as m
from skypane.shown.plan import plan
from skypane.words.copies import copies

HEADING = "The last light before the open sea"
WORDS = m.Words(
    heading=HEADING,
    text="Crossings from the old jetty, every day that the swell allows.",
    buttons=(m.Button(label="Plan a crossing", href="/crossings"),),
)
MAST = m.Area(name="Mast", rect=m.Rect(x=0.7, y=0.2, w=0.1, h=0.6))


def original(id=1, w=1600, h=900, **values):
    said = {"name": f"{id}.jpg", "sha256": str(id), "alt": "A quay", **values}
    return m.Original(id=id, width_px=w, height_px=h, **said)


QUAY = original(areas=(MAST,))


def banner(layout=None, treatments=None, *, words=WORDS, parts=(), **values):
    """One picture, 2:1 over the whole page unless said otherwise."""
    held = {"D": m.Treatment(original=1, height=m.RatioHeight(w=2, h=1)), **(treatments or {})}
    own = (m.Part(treatments=held), *parts)
    said = {"name": "Quay", "kind": "banner", "words": words, "parts": own, **values}
    return m.Placement(layout=layout or {}, **said)


def planned(placement, *originals, site=None):
    known = {o.id: o for o in (originals or (QUAY,))}
    return plan(site or m.Site(), placement, known)


def painted(colour, w=1600, h=900):
    """Px of one colour."""
    px = copies(np.full((h, w, 3), colour, np.uint8))
    return lambda original: px


def halves(left, right, w=1600, h=900):
    """Px of two greys side by side."""
    pixels = np.full((h, w, 3), left, np.uint8)
    pixels[:, w // 2 :] = right
    px = copies(pixels)
    return lambda original: px
