"""The colours of pages, as they usually are and in the dark (WCAG 2.2, 1.4.3; Media Queries 5,
prefers-color-scheme)."""

import pytest
from pydantic import ValidationError
from skypane import model as m
from skypane.errors import sentence_of
from skypane.handover import Asked, AskedPage, asked_for, blueprint
from skypane.reading import read, read_page
from skypane.shown.plan import plan

QUAY = m.Original(
    id=1, name="quay.png", width_px=3000, height_px=2000, sha256="q", alt="", alpha=True
)
ALL = {1: QUAY}
#: 1.07 : 1, 21 : 1 and 18.7 : 1, worked out from the formula of WCAG 2.2 (relative luminance).
FAINT = m.PageColours(ground="#ffffff", ink="#f7f7f7")
PLAIN = m.PageColours(ground="#ffffff", ink="#000000")
NIGHT = m.PageColours(ground="#101418", ink="#ffffff")


def row(captions="all", **values):
    item = m.Item(title="Terns", text="They nest in May.")
    parts = tuple(m.Part(treatments={"D": m.Treatment(original=1)}, item=item) for _ in range(2))
    layout = {"D": {"captions": captions, **values.pop("layout", {})}}
    return m.Placement(
        **{"name": "Row", "kind": "grid", "parts": parts, "layout": layout, **values}
    )


def faint(site, placement):
    return [f for f in read(site, placement, ALL).findings if f.rule == "captions-faint"]


def test_captions_that_cannot_be_read_are_found_as_usual_and_in_the_dark():
    assert faint(m.Site(), row()) == []
    (found,) = faint(m.Site(colours=FAINT), row())
    assert found.sentence.startswith("Captions cannot be read: 1.1 : 1 on #ffffff, 4.5 : 1 needed")
    (found,) = faint(m.Site(colours_dark=FAINT), row())
    assert "in the dark: 1.1 : 1" in found.sentence
    assert faint(m.Site(colours=PLAIN, colours_dark=NIGHT), row()) == []


def test_without_captions_on_the_page_nothing_is_said():
    site = m.Site(colours=FAINT)
    assert faint(site, row("none")) == []
    assert faint(site, row(parts=(m.Part(treatments={"D": m.Treatment(original=1)}),))) == []
    on = row(kind="slides", layout={"captions_lie": "on"})
    assert faint(site, on) == []
    assert faint(site, row(kind="slides"))


def test_large_titles_need_less():
    """3 : 1 from 24 px on: #8c8c8c on white is 3.36 : 1 (worked out)."""
    site = m.Site(colours=m.PageColours(ink="#8c8c8c"))
    assert faint(site, row("title", layout={"title_px": 24})) == []
    (found,) = faint(site, row("title", layout={"title_px": 23}))
    assert "3.4 : 1" in found.sentence
    assert faint(site, row("all", layout={"title_px": 24, "caption_px": 15}))


def words(**values):
    part = m.Part(treatments={"D": m.Treatment(original=1, background="none")})
    layout = {"D": {"shows": "below", "colour": "#101010", **values.pop("layout", {})}}
    return m.Placement(
        **{
            "name": "Quay",
            "kind": "banner",
            "parts": (part,),
            "words": m.Words(heading="Boats leave at eight"),
            "layout": layout,
            **values,
        }
    )


def test_words_below_a_picture_are_read_on_the_page_as_it_is_then():
    def unread(site, placement):
        return [f for f in read(site, placement, ALL).findings if f.rule == "unreadable"]

    assert unread(m.Site(), words()) == []
    (found,) = unread(m.Site(colours_dark=NIGHT), words())
    assert found.when == ("dark",)
    other = [m.LayoutUnder(when=("dark",), layout={"D": {"colour": "#eeeeee"}})]
    assert unread(m.Site(colours_dark=NIGHT), words(layout_under=tuple(other))) == []
    (found,) = unread(m.Site(colours=NIGHT), words())
    assert found.when == ()


def test_a_picture_that_keeps_no_colour_lies_on_the_page():
    site = m.Site(colours=PLAIN, colours_dark=NIGHT)
    found = plan(site, words(), ALL)
    assert found.parts[0].spans[-1].ground == "#ffffff"
    assert found.under[("dark",)].parts[0].spans[-1].ground == "#101418"
    # without words there is nothing that could stand on it
    bare = plan(site, m.Placement(name="Quay", parts=words().parts), ALL)
    assert bare.under == {}


def test_panes_have_the_colours_that_are_seen():
    site = m.Site(colours=PLAIN, colours_dark=NIGHT)
    assert read(site, words(), ALL).pane.colours == PLAIN
    dark = read(site, words(), ALL, conditions=m.Conditions(dark=True))
    assert dark.pane.colours == NIGHT
    assert read(m.Site(), words(), ALL, conditions=m.Conditions(dark=True)).pane.colours == (
        m.PageColours()
    )
    assert read_page(site, {}, [row()], ALL, preview=lambda o, crop, px: "x").pane.colours == PLAIN


def page(site, placement=None):
    asked = asked_for(site, placement or row(), ALL.values())
    return blueprint(asked).texts["page.html"]


def test_delivered_pages_have_them_and_say_that_they_are_made_for_both():
    assert "color-scheme" not in page(m.Site()) and "body { margin: 0; }" in page(m.Site())
    html = page(m.Site(colours=PLAIN))
    assert "body { margin: 0; background: #ffffff; color: #000000; }" in html
    assert "color-scheme" not in html
    html = page(m.Site(colours=PLAIN, colours_dark=NIGHT))
    assert '<meta name="color-scheme" content="light dark">' in html
    assert (
        "@media (prefers-color-scheme: dark) { body { background: #101418; color: #ffffff; } }"
        in html
    )


def test_a_page_that_browsers_may_darken_says_its_colours():
    """Else they would put their own behind words that were looked at on the page's."""
    dark = m.Part(of="a", when=("dark",), treatments={"D": m.Treatment(show="colour")})
    first = m.Part(key="a", treatments={"D": m.Treatment(original=1)})
    html = page(m.Site(), m.Placement(name="Quay", parts=(first, dark)))
    assert "color-scheme" in html and "background: #ffffff; color: #1a1a1a;" in html


def test_pages_without_placements_of_the_dark_have_them_too():
    site = m.Site(colours_dark=NIGHT)
    asked = Asked(
        scope="site",
        site=site,
        title="Tern Point",
        pages=(AskedPage(title="Home", placements=(row(),)),),
        originals=(QUAY,),
    )
    texts = blueprint(asked).texts
    for name in ("home.html", "index.html"):
        assert "prefers-color-scheme: dark" in texts[name], name


@pytest.mark.parametrize("said", ["white", "#fff", "none", ""])
def test_what_is_no_colour_is_refused(said):
    with pytest.raises(ValidationError) as refused:
        m.PageColours(ground=said)
    assert "six digits, as #d5d9da" in sentence_of(refused.value)
