"""A tree of elements as HTML, JSX and a Django template, read back by a parser of others (lexbor,
by selectolax). That a template says the same once Django has rendered it is in the server's tests,
that JSX does once React has is in the web application's."""

import json
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from selectolax.lexbor import LexborHTMLParser
from skypane.handover import Asked, blueprint
from skypane.markup.addresses import addresses_of
from skypane.markup.django import DjangoTemplate
from skypane.markup.elements import Candidate, File, Listed, element
from skypane.markup.html import Html, html_at, html_of, in_folder
from skypane.markup.jsx import Jsx
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_elements
from skypane.markup.printed import MOST_COLUMNS, parted
from skypane.model.stored import lifted

HERE = Path(__file__).parent
DELIVERED = sorted((HERE.parent / "delivered").iterdir())
FOLDER = in_folder("images/")
HTML, LINES = html_of(), Html(FOLDER, columns=None)


def tree(html):
    """An element with all that is in it; lists without the room between their entries."""

    def of(node):
        if node.tag == "-text":
            return node.text_content.strip() or None
        said = {
            k: ", ".join(p.strip() for p in v.split(",")) if v and k in ("srcset", "sizes") else v
            for k, v in node.attributes.items()
        }
        inner = [of(child) for child in node.iter(include_text=True)]
        return node.tag, said, [child for child in inner if child is not None]

    return [of(node) for node in LexborHTMLParser(html).body.iter()]


def elements_of(folder):
    asked = Asked.model_validate(lifted("asked", json.loads((folder / "asked.json").read_text())))
    return [placement_elements(plan, files) for plan, files in blueprint(asked).planned]


@pytest.mark.parametrize("folder", DELIVERED, ids=lambda f: f.name)
def test_long_lists_stand_on_several_lines_and_say_the_same(folder):
    for elements in elements_of(folder):
        broken, whole = text_of(HTML.lines(elements)), text_of(LINES.lines(elements))
        assert tree(broken) == tree(whole) != []
        # a line that is longer has no list to break
        long = [line for line in broken.split("\n") if len(line.lstrip()) > MOST_COLUMNS]
        assert all("srcset=" not in line or ", " not in line for line in long)
        assert not any("\n" in line.text for line in HTML.lines(elements))


def test_every_line_of_a_tag_says_which_spans_it_serves():
    of = Listed(tuple(Candidate(f"images/quay-at-dawn-{i}.avif", f"{i}00w") for i in range(1, 9)))
    source = element("source", {"srcset": of, "sizes": "100vw"}, spans=("A", "B"))
    lines = HTML.lines([element("picture", {"class": "quay"}, [source])])
    assert lines[0].spans == lines[-1].spans == ()
    assert len(lines) == 12 and {line.spans for line in lines[1:-1]} == {("A", "B")}


def test_lists_are_divided_where_no_bracket_is_open():
    """CSS Values 4 §10: a function's own commas are no ends of entries."""
    said = "(max-width: 599px) calc(50vw - 4px), min(100vw, 640px), 20px"
    assert parted(said) == ["(max-width: 599px) calc(50vw - 4px)", "min(100vw, 640px)", "20px"]


@pytest.mark.parametrize("suffix", ["html", "jsx"])
def test_what_react_renders_in_the_web_s_tests_is_what_is_printed(suffix):
    """`printed/` holds a slideshow of the demo, with one caption that means something in both."""
    every = elements_of(HERE.parent / "delivered" / "every-kind")
    slides = next(e for e in every if "data-slideshow" in dict(e[0].attributes))
    typed = element("p", {"title": 'A "quay" & {more}'}, ["{fish} & <chips>\nat the 'quay'"])
    printer = LINES if suffix == "html" else Jsx(FOLDER)
    text = text_of(printer.lines([element("main", None, [*slides, typed])]))
    assert (HERE / "printed" / f"slides.{suffix}").read_text() == text


TEXT = st.text(st.characters(codec="utf-8", exclude_characters="\0\r"), max_size=40)


@given(TEXT, TEXT)
def test_text_and_attributes_come_back_from_html(text, said):
    """HTML Standard §13.1.2.3 and §13.1.3: whatever a designer has typed is text."""
    html = text_of(HTML.lines([element("p", {"title": said}, [text])]))
    node = LexborHTMLParser(html).css_first("p")
    assert node.text() == text and node.attributes["title"] == said


@given(TEXT)
def test_text_of_jsx_is_a_string_wherever_something_in_it_means_something(text):
    (line,) = Jsx(FOLDER).lines([element("p", None, [text])])
    inner = line.text.removeprefix("<p>").removesuffix("</p>")
    if inner.startswith("{"):
        assert json.loads(inner[1:-1]) == text
    else:
        assert inner == text and not set(text) & set("{}<>&\n")


def test_jsx_names_properties_and_ends_what_is_empty():
    img = element("img", {"src": File("a.jpg"), "fetchpriority": "high", "alt": 'A "quay" & more'})
    inner = [img, element("b", {"tabindex": 0, "aria-label": "Quay", "data-x": "", "data-y": True})]
    lines = Jsx(FOLDER).lines([element("div", {"class": "quay"}, inner), element("i")])
    assert [line.text for line in lines] == [
        "<>",
        '  <div className="quay">',
        '    <img src="a.jpg" fetchPriority="high" alt="A &quot;quay&quot; &amp; more" />',
        '    <b tabIndex={0} aria-label="Quay" data-x="" data-y=""></b>',
        "  </div>",
        "  <i></i>",
        "</>",
    ]


def test_a_template_asks_for_files_by_static_and_reads_nothing_else():
    (elements,) = elements_of(HERE.parent / "delivered" / "keeper-s-cottage")
    text = text_of(DjangoTemplate(FOLDER).lines(elements))
    assert text.startswith("{% load static %}\n<picture")
    assert "src=\"{% static 'images/keeper-s-cottage.jpg' %}\"" in text
    typed = element("p", {"title": "{# a #}"}, ["{{ secret }} and {% now %}"])
    said = text_of(DjangoTemplate(FOLDER).lines([typed]))
    assert "{{" not in said and "{% now" not in said and "{#" not in said


def test_what_is_printed_stays_from_one_reading_to_the_next():
    """One printer for one folder, wherever it is asked for: pictures of a long gallery are printed
    once."""
    folder = HERE.parent / "delivered" / "four-boats"
    asked = Asked.model_validate(lifted("asked", json.loads((folder / "asked.json").read_text())))
    ((plan, _),) = blueprint(asked).planned
    assert html_at(addresses_of(plan)) is html_at(addresses_of(plan)) is html_of()
