"""Drawings that stand in the page itself (SVG 2; HTML Standard §4.8.17)."""

import re

import pytest
from selectolax.lexbor import LexborHTMLParser
from skypane import model as m
from skypane.files.drawn import read_drawing
from skypane.files.renditions import renditions
from skypane.handover import asked_for, blueprint
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.outputs import written_as
from skypane.markup.pane import pane_lines
from skypane.pixels.svg import drawing_of
from skypane.proof import cases, delivered, predict
from skypane.reading import read
from skypane.shown.plan import plan

NS = 'xmlns="http://www.w3.org/2000/svg" viewBox="0 0 30 20" width="30" height="20"'
ONE = f'<svg {NS}><path id="a" d="M0 0h9" fill="#123456" stroke-width="2"/><use href="#a"/></svg>'
RECT = '<rect fill="{}" width="9" height="9"/>'
TWO = f"<svg {NS}>{RECT.format('red')}{RECT.format('blue')}</svg>"


def tern(text=ONE, treatments=None, *more, way="svg", kind="picture", **values):
    original = m.Original(
        **{
            "id": 1,
            "name": "tern.svg",
            "width_px": 30,
            "height_px": 20,
            "sha256": "t",
            "alt": "A tern",
            "medium": "drawing",
            "drawing": text,
            **values,
        }
    )
    night = original.model_copy(update={"id": 2, "sha256": "n"})
    held = treatments or {"D": m.Treatment(original=1, fit="contain")}
    parts = (m.Part(key="a", treatments=held, way=way), *more)
    made = m.Placement(name="Tern", kind=kind, parts=parts)
    return plan(m.Site(), made, {1: original, 2: night})


def html(found):
    return text_of(written_as(found, renditions(found), "html")[0].lines)


def ways(found):
    originals = {p.original.id: p.original for part in found.parts for p in part.shown}
    return read(found.site, found.placement, originals).code.ways[0]


def test_it_stands_in_the_page_with_the_colour_of_the_text_around_it():
    tree = LexborHTMLParser(html(tern()))
    (svg,) = tree.css("span.tern > svg")
    assert svg.attributes["role"] == "img" and svg.attributes["aria-label"] == "A tern"
    assert tree.css_first("path").attributes["fill"] == "currentColor"
    assert not tree.css("img, picture") and renditions(tern()) == ()


def test_ids_are_those_of_no_other_drawing():
    tree = LexborHTMLParser(html(tern()))
    assert tree.css_first("path").attributes["id"] == "tern-a"
    assert tree.css_first("use").attributes["href"] == "#tern-a"
    gradient = (
        f'<svg {NS}><defs><linearGradient id="g"/></defs><path fill="url(#g)" d="M0 0"/></svg>'
    )
    assert "url(#tern-g)" in html(tern(gradient))


def test_nothing_is_delivered_for_it_and_nothing_is_fetched():
    asked = asked_for(m.Site(), tern().placement, [tern().parts[0].shown[0].original])
    planned = blueprint(asked)
    assert planned.files == () and "<svg" in planned.texts["page.html"]
    of = delivered(planned.texts["page.html"], planned.texts["picture.css"], "tern")
    found = predict(m.Site(), of, {}, cases(m.Site(), (1, 2)))
    assert {p.url for p in found} == {None}
    assert "nothing is fetched" in found[0].trace[0].why


def test_it_fills_its_frame():
    css = text_of(css_lines(tern(), ()))
    assert ".tern svg {" in css and "object-fit" not in css and ".tern img" not in css


@pytest.mark.parametrize(
    ("treatment", "lies"),
    [
        (m.Treatment(fit="contain", height=m.RatioHeight(w=1, h=1)), "xMidYMid meet"),
        (m.Treatment(fit="cover", height=m.RatioHeight(w=1, h=1)), "xMidYMid slice"),
        (
            m.Treatment(fit="contain", height=m.RatioHeight(w=1, h=1), aim=m.FixedAim(x=0, y=1)),
            "xMinYMax meet",
        ),
        (m.Treatment(fit="cover", height=m.RatioHeight(w=3, h=2)), "xMidYMid meet"),
    ],
)
def test_it_lies_in_its_frame_as_the_picture_would(treatment, lies):
    held = {"D": treatment.model_copy(update={"original": 1})}
    assert f'preserveAspectRatio="{lies}"' in html(tern(ONE, held))


DARK = m.Part(of="a", when=("dark",), treatments={"D": m.Treatment(original=2)})
SQUARE = m.RatioHeight(w=1, h=1)
CANNOT = {
    "conditions": lambda: tern(ONE, None, DARK),
    "several": lambda: tern(ONE, {"D": m.Treatment(original=1), "A": m.Treatment(original=2)}),
    "not every span": lambda: tern(
        ONE, {"D": m.Treatment(original=1), "A": m.Treatment(show="colour")}
    ),
    "more than 4 kB": lambda: tern(""),
    "cropped": lambda: tern(ONE, {"D": m.Treatment(original=1, crop=m.Rect(x=0, y=0, w=0.5, h=1))}),
    "as only a file can": lambda: tern(
        ONE, {"D": m.Treatment(original=1, height=SQUARE, aim=m.FixedAim(x=0.3, y=0.5))}
    ),
    "style sheet": lambda: tern(f"<svg {NS}><style>path{{fill:red}}</style></svg>"),
    "foreignObject": lambda: tern(f"<svg {NS}><foreignObject/></svg>"),
    "script": lambda: tern(f"<svg {NS}><script>alert(1)</script></svg>"),
    "cannot be read": lambda: tern("<svg"),
    "nested too deeply": lambda: tern(f"<svg {NS}>{'<g>' * 500}{'</g>' * 500}</svg>"),
    "document type": lambda: tern(f"<!DOCTYPE svg [<!ENTITY a 'b'>]><svg {NS}>&a;</svg>"),
    "how large": lambda: tern('<svg xmlns="http://www.w3.org/2000/svg"/>'),
    "no drawing": lambda: tern(ONE, medium="picture"),
}


@pytest.mark.parametrize("said", CANNOT)
def test_where_it_cannot_it_is_said_why_and_a_file_shows(said):
    found = CANNOT[said]()
    told = ways(found)
    assert said in told.cannot["svg"] and told.way != "svg"
    assert "<svg" not in html(found) and "tern" in html(found)


def test_one_of_several_colours_keeps_them():
    assert ways(tern()).why.endswith("the colour of the text around it.")
    assert "keeps them" in ways(tern(TWO)).why
    assert 'fill="red"' in html(tern(TWO)) and "currentColor" not in html(tern(TWO))


@pytest.mark.parametrize(
    ("inner", "one"),
    [
        ('<path d="M0 0"/>', True),
        ('<g fill="#000"><path d="M0 0"/><path d="M1 1" fill="black"/></g>', True),
        ('<path d="M0 0" fill="currentColor"/><path fill="#f00" d="M1 1"/>', True),
        ('<path d="M0 0" fill="none" stroke="#f00"/>', True),
        ('<path d="M0 0" stroke="#f00"/>', False),
        ('<path style="fill:#f00;stroke:#0f0" d="M0 0"/>', False),
        ('<path fill="url(#a)" d="M0 0"/>', False),
        ("", True),
    ],
)
def test_what_has_one_colour_is_counted_with_what_is_black_unsaid(inner, one):
    assert read_drawing(f"<svg {NS}>{inner}</svg>").one_colour is one


def test_what_runs_or_reaches_out_is_left_behind():
    bad = (
        f'<svg {NS} onload="x()"><path onclick="x()" style="fill:url(http://x/a)" class="hero"'
        ' d="M0 0"/><use href="http://x/#a"/><use href="javascript:x()"/></svg>'
    )
    out = html(tern(bad))
    assert not re.search(r"onload|onclick|http:|javascript|hero", out), out


def test_what_costs_it_is_told():
    assert ways(tern()).costs == (
        f"It is in the page itself: {len(ONE)} B with every page, and no cache keeps it.",
    )


def test_panes_show_it_as_pages_do():
    told = text_of(pane_lines(tern(), lambda o, crop, px: "x"))
    assert "<svg" in told and 'data-part="0"' in told and "<img" not in told


def test_jsx_names_attributes_as_properties():
    text = text_of(written_as(tern(), (), "jsx")[0].lines)
    assert 'strokeWidth="2"' in text and "aria-label=" in text and "viewBox=" in text
    assert "stroke-width" not in text


def test_without_alt_text_it_is_passed_over():
    assert 'aria-hidden="true"' in html(tern(alt=""))


def test_small_drawings_are_read_from_their_files(tmp_path):
    path = tmp_path / "a.svg"
    path.write_text(f"<?xml version='1.0'?><!-- made --><svg {NS}><path d='M0 0h9'/></svg>")
    assert read_drawing(drawing_of(path, (30, 20))).one_colour
    many = '<path d="M0 0h9"/>' * 400
    path.write_text(f"<svg {NS}>{many}</svg>")
    assert drawing_of(path, (30, 20)) == ""
    path.write_text("<svg nothing")
    assert drawing_of(path, (30, 20)) == ""
