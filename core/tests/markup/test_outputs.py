"""The kinds of output say the same: each is held against the HTML, as a parser of others reads it
(lexbor, by selectolax). What React renders of the component is in the web application's tests, what
Django renders in the server's."""

import json
import re
from pathlib import Path

import pytest
from pydantic import ValidationError
from selectolax.lexbor import LexborHTMLParser
from skypane.files.names import first_name
from skypane.geometry import Rect
from skypane.handover import Asked, blueprint
from skypane.markup.lines import text_of
from skypane.markup.outputs import component_name, written_as
from skypane.model import OUTPUTS, HandOver
from skypane.model.stored import lifted

HERE = Path(__file__).parent
DELIVERED = sorted((HERE.parent / "delivered").iterdir())


def asked_of(name, **how):
    folder = HERE.parent / "delivered" / name
    asked = Asked.model_validate(lifted("asked", json.loads((folder / "asked.json").read_text())))
    site = asked.site.model_copy(update={"hand_over": HandOver(**how)})
    return asked.model_copy(update={"site": site})


def written(name, output, **how):
    planned = blueprint(asked_of(name, **how)).planned
    return [written_as(plan, files, output) for plan, files in planned]


def data_of(html):
    """A parsed tree as the JSON has it, texts without the room around them."""

    def of(node):
        if node.tag == "-text":
            return node.text_content.strip() or None
        inner = [of(child) for child in node.iter(include_text=True)]
        said = {k: re.sub(r"\s+", " ", v or "") for k, v in node.attributes.items()}
        return {"tag": node.tag, "attributes": said, "children": [c for c in inner if c]}

    return [of(node) for node in LexborHTMLParser(html).body.iter()]


def attributes_of(data):
    def said(value):
        if isinstance(value, list):
            return ", ".join(f"{c['address']} {c['descriptor']}".strip() for c in value)
        return "" if value is True else str(value)

    if isinstance(data, str):
        return data.strip()
    attributes = {k: re.sub(r"\s+", " ", said(v)) for k, v in data["attributes"].items()}
    children = [attributes_of(c) for c in data["children"]]
    return {"tag": data["tag"], "attributes": attributes, "children": [c for c in children if c]}


@pytest.mark.parametrize("folder", DELIVERED, ids=lambda f: f.name)
def test_the_tree_in_json_is_that_of_the_html(folder):
    html, data = written(folder.name, "html"), written(folder.name, "json")
    for (snippet, sheet), (told,) in zip(html, data, strict=True):
        read = json.loads(text_of(told.lines))
        assert [attributes_of(e) for e in read["elements"]] == data_of(text_of(snippet.lines))
        assert read["css"] == [line.text for line in sheet.lines]
        assert all(f["address"].startswith("images/") for f in read["files"])


def test_a_component_is_what_the_web_s_tests_render():
    """`printed/` holds the component of a slideshow, `delivered/` the HTML that React has to make
    of it."""
    ((snippet, _),) = [w for w in written("every-kind", "html") if "six-views" in w[0].name]
    ((component, module),) = [w for w in written("every-kind", "jsx") if "SixViews" in w[0].name]
    assert (HERE / "printed" / "component.tsx").read_text() == text_of(component.lines)
    kept = HERE.parent / "delivered" / "every-kind" / "snippets" / "six-views.html"
    assert kept.read_text() == text_of(snippet.lines)
    assert module.name == "components/SixViews.module.css"
    # what the module does not define would be a class that nothing styles
    named = set(re.findall(r'styles\["([^"]+)"\]', text_of(component.lines)))
    assert named and all(f".{name}" in text_of(module.lines) for name in named)


def test_components_are_called_as_the_trade_calls_them():
    assert component_name("keeper-s-cottage") == "KeeperSCottage"
    assert component_name("picture-360-view") == "Picture360View"


@pytest.mark.parametrize("output", OUTPUTS)
def test_files_are_looked_for_where_they_are_said_to_be(output):
    prefix = "https://pictures.example/tern/"
    for files in written("every-kind", output, prefix=prefix[:-1]):
        text = text_of(files[0].lines)
        assert prefix in text and '"images/' not in text and "static '" not in text


def test_pages_of_a_delivery_work_from_disk_wherever_its_code_looks():
    texts = blueprint(asked_of("lighthouse", prefix="/assets/")).texts
    assert 'src="images/' in texts["page.html"] and 'src="/assets/' in texts["snippet.html"]
    assert "at /assets/" in texts["notes.txt"]


def test_what_is_wanted_goes_into_a_delivery_and_nothing_else():
    texts = blueprint(asked_of("whole-site", outputs=("json", "jsx"))).texts
    folders = {name.split("/")[0] for name in texts if "/" in name}
    assert folders == {"components", "data"}
    texts = blueprint(asked_of("lighthouse", outputs=())).texts
    assert set(texts) == {"page.html", "picture.css", "notes.txt"}


def test_a_name_with_a_hash_is_another_one_for_another_cut_alone():
    asked = asked_of("lighthouse", hashed=True)
    page = asked.pages[0]
    (placement,) = page.placements
    part = placement.parts[0]
    own = {**part.treatments}
    letter = next(iter(own))
    own[letter] = own[letter].model_copy(update={"crop": Rect(x=0.1, y=0.1, w=0.5, h=0.5)})
    cut = placement.with_part(0, part.model_copy(update={"treatments": own}))
    after = asked.model_copy(update={"pages": (page.model_copy(update={"placements": (cut,)}),)})
    before, now = ({f.name: f for f in blueprint(a).files} for a in (asked, after))
    assert all(re.search(r"\.[0-9a-f]{8}\.(avif|webp|jpg|png)$", name) for name in before)
    assert now.keys() - before.keys()
    assert all(now[n].key == before[n].key for n in now.keys() & before.keys())
    for name, f in before.items():
        assert first_name(name) == name.replace(f".{f.key[:8]}", "")
    assert "immutable" in blueprint(asked).texts["notes.txt"]
    # a quick look has the name of what is handed over
    quick = blueprint(asked.model_copy(update={"effort": "quick"}))
    assert {f.name for f in quick.files} == before.keys()


@pytest.mark.parametrize(
    ("prefix", "said"),
    [
        ("my images/", "a space"),
        ('"onload=', 'cannot hold "'),
        ("a\nb", "a space"),
        ("{{ x }}", "cannot hold {"),
        ("https://x.example/?w=1", "without ? and #"),
        ("javascript:alert/", "begins with https://"),
    ],
)
def test_what_no_address_can_begin_with_is_refused_in_words(prefix, said):
    with pytest.raises(ValidationError, match=re.escape(said)):
        HandOver(prefix=prefix)
