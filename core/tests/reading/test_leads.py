"""Which placement of a page loads first (rules §11)."""

import pytest
from skypane import model as m
from skypane import read_page

ORIGINALS = {
    i: m.Original(id=i, name=f"{i}.jpg", width_px=6000, height_px=4000, sha256=str(i), alt="A")
    for i in (1, 2)
}
PHONE, DESK = (
    m.Viewers(width=390, height=844, density=3, weight=60),
    m.Viewers(width=1920, height=1080, density=1, weight=40),
)


def picture(name, treatments=None, *, lead=False):
    own = {"D": m.Treatment(original=1, height=m.RatioHeight(w=2, h=1)), **(treatments or {})}
    return m.picture(name, own, lead=lead)


LOGO = m.picture(
    "Logo", {"D": m.Treatment(original=2, width=m.FixedWidth(width_px=120))}, lead=True
)


def lead(*placements, layout=None, audience=(PHONE, DESK)):
    site = m.Site(audience=audience)
    told = read_page(site, layout or {}, placements, ORIGINALS, preview=lambda o, *_: o.name)
    return told.lead


def test_the_first_large_picture_above_the_fold_is_proposed_not_a_logo():
    found = lead(LOGO, picture("Quay", lead=True), picture("Below"))
    assert (found.proposed, found.share, found.is_so) == (1, 1.0, False)
    assert found.leads == (0, 1)
    assert found.sentence == (
        "Logo and Quay both load first, and only one can. Quay is the first large picture on 100 %"
        " of screens."
    )


def test_one_that_does_not_show_on_phones_is_first_on_the_others_alone():
    wide = picture("Wide", {"A": m.Treatment(show="nothing")})
    found = lead(wide, picture("Quay", lead=True))
    assert (found.proposed, found.share, found.is_so) == (1, 0.6, True)
    assert found.sentence == "Quay is the first large picture on 60 % of screens, and loads first."
    assert lead(wide, picture("Quay"), audience=(DESK,)).proposed == 0


def test_what_begins_below_the_fold_is_not_waited_for():
    high = m.picture("High", {"D": m.Treatment(show="colour", height=m.ViewportHeight(percent=95))})
    found = lead(high, picture("Quay", lead=True))
    assert found.proposed is None and not found.is_so
    assert "no large picture above the fold" in found.sentence
    assert lead(high, picture("Quay")).is_so


def test_the_order_of_a_span_counts_and_its_head():
    layout = {"A": m.PageValues(order=(1, 0)), "D": m.PageValues(order=(0, 1))}
    two = (picture("One"), picture("Two"))
    assert lead(*two, layout=layout).proposed == 1
    assert lead(*two, layout=layout, audience=(DESK,)).proposed == 0
    below = {"D": m.PageValues(head_px=800)}
    assert lead(*two, layout=below, audience=(PHONE,)).proposed is None
    over = {"D": m.PageValues(head_px=800, head_over=True)}
    assert lead(*two, layout=over, audience=(PHONE,)).proposed == 0


@pytest.mark.parametrize("placements", [(), (m.picture("Wait", {}),)])
def test_a_page_without_a_picture_has_nothing_to_load_first(placements):
    found = lead(*placements)
    assert (found.proposed, found.leads, found.is_so) == (None, (), True)
