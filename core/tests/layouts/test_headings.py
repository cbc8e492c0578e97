"""Ranks of headings: a page that begins with h1 goes on with h2, unless somebody says otherwise."""

import pytest
from selectolax.lexbor import LexborHTMLParser
from skypane import model as m
from skypane.handover import asked_for, blueprint
from skypane.layouts import begun

ORIGINAL = m.Original(id=1, name="a.jpg", width_px=4000, height_px=3000, sha256="1", alt="")
PART = m.Part(
    item=m.Item(title="In the cottage", text="Warm."), treatments={"D": m.Treatment(original=1)}
)


def headings(kind: str, site: m.Site, **values: object) -> tuple[list[str], str]:
    placement = begun(kind, site, m.Placement(name="Quay", parts=(PART,)))
    placement = placement.model_copy(update=values)
    texts = blueprint(asked_for(site, placement, [ORIGINAL])).texts
    found = LexborHTMLParser(texts["snippet.html"]).css("h1, h2, h3, h4, h5, h6")
    return [h.tag for h in found], texts["picture.css"]


@pytest.mark.parametrize("kind", ["banner", "beside"])
def test_a_rank_is_the_sites_or_the_placements(kind):
    """No rank is left out (WCAG 2.2, 1.3.1; common practice), and the CSS goes with it."""
    assert headings(kind, m.Site())[0] == ["h2"]
    tags, css = headings(kind, m.Site(heading_level=3))
    assert tags == ["h3"] and " h3 {" in css and " h2" not in css
    own = {"words": m.Words(heading="A", level=1)} if kind == "banner" else {"title_level": 1}
    tags, css = headings(kind, m.Site(heading_level=3), **own)
    assert tags == ["h1"] and " h1 {" in css
