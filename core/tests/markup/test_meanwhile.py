"""What is seen until a picture is there, and where it does not come (HTML Standard §4.8.4)."""

import json
import re

import pytest
from skypane import model as m
from skypane.errors import InvalidPlan
from skypane.files.renditions import renditions
from skypane.handover import asked_for, blueprint
from skypane.markup.addresses import without_address
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.outputs import written_as
from skypane.markup.pane import pane_lines
from skypane.markup.substitute import SCRIPT, substitute_of
from skypane.model.tiny import Tiny
from skypane.reading import read
from skypane.shown.plan import plan
from skypane.sitefile import renumbered

TINY = Tiny.of(2, bytes([200, 20, 20, 20, 20, 200]))
QUAY = m.Original(
    id=1, name="quay.jpg", width_px=6000, height_px=4000, sha256="q", alt="A quay", tiny=TINY
)
GLASS = m.Original(
    id=2, name="glass.png", width_px=600, height_px=400, sha256="g", alt="", alpha=True
)
BUOY = m.Original(id=3, name="3-buoy.jpg", width_px=1600, height_px=1600, sha256="b", alt="")
ALL = {o.id: o for o in (QUAY, GLASS, BUOY)}
SHOWN = {
    "D": m.Treatment(original=1, height=m.RatioHeight(w=2, h=1)),
    "A": m.Treatment(show="colour"),
}


def placement(**values):
    return m.Placement(**{"name": "Quay", "parts": (m.Part(treatments=SHOWN),), **values})


def computed(site=m.Site(), **values):  # frozen
    return plan(site, placement(**values), ALL)


def css_of(found):
    return text_of(css_lines(found, renditions(found)))


URL = re.compile(r'background: #d5d9da url\("data:image/png;base64,[^"]+"\) 50% 50% / (\w+) no-re')


def test_unless_it_is_wanted_there_is_nothing_but_the_colour():
    assert "data:" not in css_of(computed()) and "data-instead" not in page_of(computed())


def test_something_of_the_picture_lies_behind_it_as_the_picture_does():
    assert URL.findall(css_of(computed(blurred=True))) == ["cover"]
    contained = {"D": SHOWN["D"].model_copy(update={"fit": "contain"})}
    found = computed(blurred=True, parts=(m.Part(treatments=contained),))
    assert URL.findall(css_of(found)) == ["contain"]


def test_a_span_without_a_picture_has_its_colour_alone():
    """Said anew: what wider spans say holds on until then."""
    css = css_of(computed(blurred=True))
    assert css.index("data:image/png") < css.index("@media (max-width: 599px)")
    assert "background: #d5d9da;" in css[css.index("@media (max-width: 599px)") :]


def test_a_picture_in_the_dark_has_its_own():
    other = QUAY.model_copy(update={"id": 4, "sha256": "d", "tiny": Tiny.of(1, bytes([9, 9, 9]))})
    parts = (
        m.Part(key="a", treatments=SHOWN),
        m.Part(of="a", when=("dark",), treatments={"D": m.Treatment(original=4)}),
    )
    found = plan(m.Site(), placement(parts=parts, blurred=True), {**ALL, 4: other})
    dark = css_of(found).partition("prefers-color-scheme: dark")[2]
    assert "data:image/png" in dark
    # and one that can be seen through has none: the colour alone, said anew
    found = plan(
        m.Site(),
        placement(
            parts=(parts[0], m.Part(of="a", when=("dark",), treatments={"D": _shown(2)})),
            blurred=True,
        ),
        ALL,
    )
    dark = css_of(found).partition("prefers-color-scheme: dark")[2]
    assert "data:image/png" not in dark.partition("@media")[0] and "background: #" in dark


def _shown(original):
    return m.Treatment(original=original, background="#d5d9da")


def test_a_background_has_none():
    parts = (m.Part(treatments=SHOWN, alt="", way="background"),)
    assert "base64" not in css_of(computed(blurred=True, parts=parts))


def test_what_it_costs_is_told_and_of_which_it_cannot_be_had():
    parts = (m.Part(treatments={**SHOWN, "B": m.Treatment(original=2)}),)
    told = read(m.Site(), placement(blurred=True, parts=parts), ALL).code.behind
    assert told.without == ("glass.png",)
    assert 60 < told.most_bytes <= 600 and told.all_bytes == told.most_bytes
    assert read(m.Site(), placement(), ALL).code.behind is None


# -- a picture in the place of another ------------------------------------------------------


def page_of(found):
    return text_of(written_as(found, renditions(found), "html")[0].lines)


def test_one_file_goes_along_that_every_browser_reads():
    asked = asked_for(m.Site(), placement(substitute=3), ALL.values())
    (file,) = [f for f in blueprint(asked).files if f.original == 3]
    assert (file.name, file.width_px, file.height_px) == ("quay-instead@960w.jpg", 960, 960)
    texts = blueprint(asked).texts
    assert 'data-instead="images/quay-instead@960w.jpg"' in texts["page.html"]
    assert '<script src="substitute.js" defer></script>' in texts["page.html"]
    assert texts["substitute.js"].count("\n") == 1 and "substitute.js" in texts["notes.txt"]
    assert len(texts["substitute.js"]) <= SCRIPT.most_bytes


def test_every_kind_of_output_names_it():
    found = computed(m.Site(hand_over=m.HandOver(prefix="static/", hashed=True)), substitute=3)
    name = substitute_of(found).name
    assert re.fullmatch(r"quay-instead@960w\.[0-9a-f]{8}\.jpg", name)
    assert f'data-instead="static/{name}"' in page_of(found)
    files = renditions(found)
    assert f'data-instead="static/{name}"' in text_of(written_as(found, files, "jsx")[0].lines)
    django = text_of(written_as(found, files, "django")[0].lines)
    assert f"data-instead=\"{{% static 'static/{name}' %}}\"" in django
    told = json.loads(text_of(written_as(found, files, "json")[0].lines))
    assert told["files"][-1]["address"] == f"static/{name}"
    assert told["scripts"] == ["substitute.js"]


def test_where_a_service_does_not_answer_it_comes_from_the_folder():
    service = m.Service(
        template="https://x.test/{name}{?w}",
        means={"name": "name", "w": "width"},
    )
    found = computed(m.Site(hand_over=m.HandOver(service=service)), substitute=1)
    html = page_of(found)
    assert 'data-instead="images/quay-instead@960w.jpg"' in html and "https://x.test/" in html


def test_a_host_has_to_be_given_it_too():
    site = m.Site(hand_over=m.HandOver(uploaded={"a.jpg": "https://x.test/a.jpg"}))
    found = computed(site, substitute=3)
    assert "quay-instead@960w.jpg" in without_address(found, renditions(found))


def test_what_lies_on_a_picture_and_backgrounds_have_none():
    mark = m.Part(role="mark", treatments={"D": m.Treatment(original=2)})
    banner = m.Placement(
        name="Quay", kind="banner", parts=(m.Part(treatments=SHOWN), mark), substitute=3
    )
    html = page_of(plan(m.Site(), banner, ALL))
    assert html.count("data-instead") == 1 and html.count("<img") == 2
    background = m.Part(treatments=SHOWN, alt="", way="background")
    assert "data-instead" not in page_of(computed(parts=(background,), substitute=3))


def test_a_pane_knows_a_preview_of_it():
    found = computed(substitute=3)
    told = text_of(pane_lines(found, lambda o, crop, px: f"/{o.id}-{px:g}"))
    assert 'data-instead="/3-960"' in told


def test_one_that_is_not_there_is_said():
    with pytest.raises(InvalidPlan, match="Choose another") as problem:
        computed(substitute=9)
    assert problem.value.field == "substitute"


def test_it_is_counted_among_the_originals_and_renumbered_with_them():
    made = placement(substitute=3)
    assert made.original_ids == {1, 3}
    assert renumbered(made, {1: 10, 3: 30}).substitute == 30
    assert renumbered(made, {1: 10}).substitute == 0
