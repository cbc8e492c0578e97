"""Banners over the API: read with the px of their originals, kept, exported with their typeface,
and found out in lists."""

import io
import json
import zipfile

import pytest
from conftest import picture
from deliveries import work
from deliveries.tasks import run_delivery
from django.core.files.storage import default_storage
from originals import copies
from originals.models import Original
from PIL import Image
from skypane.remembered import Remembered
from skypane.words.faces import FACES

pytestmark = pytest.mark.django_db

WORDS = {"heading": "The last light", "text": "Every day that the swell allows.", "buttons": []}


@pytest.fixture(autouse=True)
def fresh(monkeypatch):
    monkeypatch.setattr(copies, "_kept", Remembered(copies.MOST_BYTES, copies._weight))
    whole = Remembered(copies.MOST_BYTES_OF_WHOLE, copies._weight_of_whole)
    monkeypatch.setattr(copies, "_whole", whole)


def test_the_largest_copy_that_was_let_go_is_opened_once_more(designer, site, bright):
    row = Original.objects.get(id=bright["id"])
    noun = row.as_noun()
    found = copies.copies_of(noun)
    width, largest = found.larger
    assert width == 1600 and (largest() == 240).sum() == 1600 * 900 * 3
    first, other = largest(), grey(30, (1601, 900))
    assert largest() is first
    copies._whole.most_bytes = 1
    again = designer.bring(site["id"], other, "dusk.png").json()
    copies.copies_of(Original.objects.get(id=again["id"]).as_noun())
    assert largest() is not first and (largest() == first).all()
    for name in (row.preview(copies.LARGE_WIDTH), row.stored):
        default_storage.delete(name)
    copies._whole.keep("another", first)
    # the next smaller one is what is left
    assert largest() is found.by_width[0]


def grey(level, size=(1600, 900)):
    out = io.BytesIO()
    Image.new("RGB", size, (level, level, level)).save(out, "PNG")
    return out.getvalue()


@pytest.fixture
def bright(designer, site):
    return designer.bring(site["id"], grey(240), "fog.png").json()


def noun(original, **values):
    held = {"original": original["id"], "height": {"kind": "ratio", "w": 2, "h": 1}}
    return {
        "name": "Landing",
        "kind": "banner",
        "words": WORDS,
        "parts": [{"treatments": {"D": held}}],
        **values,
    }


def made(designer, page, body):
    answer = designer.post(f"/pages/{page['id']}/placements", {"placement": body})
    assert answer.status_code == 201, answer.json()
    return answer.json()


def test_a_banner_is_kept_as_it_was_given(designer, page, bright):
    layout = {"D": {"place": "end", "scrim": {"kind": "plain", "colour": "#102030"}}}
    kept = made(designer, page, noun(bright, layout=layout, one_of="head"))["placement"]
    assert (kept["kind"], kept["one_of"], kept["layout"]) == ("banner", "head", layout)
    assert kept["words"] == {**WORDS, "level": None}


def test_words_are_read_on_the_px_of_the_original(designer, site, page, bright):
    body = {"placement": noun(bright), "chosen": "C"}
    reading = designer.post(f"/sites/{site['id']}/readings", body).json()
    assert reading["words"]["measured"] is True
    bands = {b["name"]: b["runs"] for b in reading["words"]["bands"]}
    (run,) = bands["Text readable"]
    assert run["verdict"] == "faint" and 1 < run["worst"] < 1.3
    # what can be done is told where it is asked for
    assert reading["words"]["detail"] is None
    reading = designer.post(f"/sites/{site['id']}/readings", {**body, "words": True}).json()
    first = reading["words"]["detail"]["advice"][0]["steps"][0]
    assert first["kind"] == "scrim" and first["works"]
    moving = designer.post(f"/sites/{site['id']}/readings/moving", {"placement": noun(bright)})
    assert moving.json()["words"]["bands"] == reading["words"]["bands"]


def test_a_picture_that_cannot_be_read_is_said_and_the_rest_goes_on(designer, site, bright):
    row = Original.objects.get(id=bright["id"])
    for name in (row.stored, *(row.preview(w) for w in (480, 1600, 3200))):
        default_storage.delete(name)
    answer = designer.post(f"/sites/{site['id']}/readings", {"placement": noun(bright)})
    assert answer.status_code == 200
    words = answer.json()["words"]
    assert words["measured"] is False
    assert "readable" not in {b["kind"] for b in words["bands"]}


def test_lists_tell_what_cannot_be_read(designer, site, page, bright):
    made(designer, page, noun(bright))
    (row,) = designer.get(f"/sites/{site['id']}/placements").json()
    assert {f["rule"] for f in row["findings"]} >= {"unreadable", "unreadable-before-loading"}
    glance = designer.get(f"/sites/{site['id']}/glance").json()
    assert glance["findings"] == len(row["findings"])


def test_of_a_set_on_a_page_just_one_shows(designer, site, page, bright):
    def head(name, shows):
        body = noun(bright, name=name, one_of="head")
        held = body["parts"][0]["treatments"]
        held["D"] = {**held["D"], "show": shows["D"]}
        held["B"] = {"show": shows["B"]}
        return made(designer, page, body)

    wide = head("wide", {"D": "picture", "B": "nothing"})
    head("narrow", {"D": "nothing", "B": "picture"})
    draft = {"placement": wide["placement"], "placement_id": wide["id"]}

    def verdicts():
        reading = designer.post(f"/sites/{site['id']}/readings", draft).json()
        return [r["verdict"] for r in reading["one_of"]["runs"]]

    assert verdicts() == ["one"]
    draft["placement"] = {**draft["placement"], "one_of": "another head"}
    assert verdicts() == ["none", "one"]  # alone in its set it leaves its narrow spans to nobody
    (row,) = [
        r for r in designer.get(f"/sites/{site['id']}/placements").json() if r["name"] == "wide"
    ]
    assert "one-of-a-set" not in {f["rule"] for f in row["findings"]}


def test_the_typeface_goes_with_the_export(designer, page, bright, monkeypatch):
    monkeypatch.setattr(run_delivery, "apply_async", lambda args, **_: None)
    placement = made(designer, page, noun(bright))
    started = designer.post(f"/placements/{placement['id']}/deliveries").json()
    work.run(started["id"])
    answer = designer.get(f"/deliveries/{started['id']}/zip")
    archive = zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content)))
    css = archive.read("picture.css").decode()
    for file in FACES["Instrument Sans"].files:
        assert f'url("fonts/{file.name}")' in css
        assert archive.read(f"fonts/{file.name}") == file.path.read_bytes()
    tree = f"/deliveries/{started['id']}/tree/1/fonts/instrument-sans-latin.woff2"
    served = designer.get(tree)
    assert served["Content-Type"] == "font/woff2"
    assert b"".join(served.streaming_content)[:4] == b"wOF2"
    assert designer.get(tree.replace("latin", "greek")).status_code == 404
    assert json.loads(archive.read("manifest.json"))["placement"] == "Landing"


def test_panes_are_given_the_typeface(designer):
    answer = designer.get("/fonts/newsreader-latin-ext.woff2")
    assert answer.status_code == 200 and answer["Content-Type"] == "font/woff2"
    for other in ("newsreader.LICENSE.txt", "..%2Ffaces.py", "none.woff2"):
        assert designer.get(f"/fonts/{other}").status_code == 404


@pytest.mark.parametrize(
    ("values", "field", "said"),
    [
        ({"words": {"text": "x" * 10_000}}, "words.text", "10000 characters"),
        (
            {"words": {"buttons": [{"label": "Go", "href": "javascript:alert(1)"}]}},
            "words.buttons.0.href",
            "cannot lead to",
        ),
        ({"words": {"buttons": [{"label": "a"}] * 3}}, "words.buttons", "at most 2"),
        ({"words": {"level": 9}}, "words.level", "at most 6"),
        ({"layout": {"D": {"margin_px": 900}}}, "layout.D.margin_px", "takes 1800 of the"),
        ({"layout": {"A": {"colour": "red"}}}, "layout.A.colour", "six digits"),
        ({"layout": {"D": {"scrim": {"kind": "swirl"}}}}, "layout.D.scrim", "one of"),
        ({"one_of": " "}, "one_of", "must not be blank"),
    ],
)
def test_what_cannot_be_had_names_its_field(designer, site, page, bright, values, field, said):
    for path in (f"/sites/{site['id']}/readings", f"/pages/{page['id']}/placements"):
        answer = designer.post(path, {"placement": noun(bright, **values)})
        assert answer.status_code == 422, answer.json()
        (problem,) = answer.json()["errors"]
        assert problem["field"].endswith(field) and said in problem["sentence"]


def test_a_history_says_what_changed_in_words(designer, page, bright):
    placement = made(designer, page, noun(bright))
    body = placement["placement"]
    for values in (
        {"words": {**WORDS, "text": "Now"}},
        {"layout": {"B": {"place": "top", "percent": 80, "align": "end"}}},
        {"parts": [*body["parts"], {"role": "mark", "treatments": {}}]},
    ):
        body = {**body, **values}
        saved = designer.put(
            f"/placements/{placement['id']}",
            {"revision": placement["revision"], "placement": body, "looks": {}},
        )
        assert saved.status_code == 200, saved.json()
        placement = saved.json()
    history = designer.get(f"/placements/{placement['id']}/history").json()["versions"]
    assert [v["what"] for v in history[1:]] == [
        "Words",
        "Place of the words, width of the words and 1 more of span B",
        "Mark added",
    ]


def test_a_copy_with_another_original_keeps_its_mark(designer, site, page, bright):
    mark = designer.bring(site["id"], picture(300, 80, "PNG"), "mark.png").json()
    other = designer.bring(site["id"], grey(20), "night.png").json()
    body = noun(bright)
    body["parts"].append({"role": "mark", "treatments": {"D": {"original": mark["id"]}}})
    placement = made(designer, page, body)
    asked = {"name": "By night", "original": other["id"]}
    copy = designer.post(f"/placements/{placement['id']}/copies", asked).json()["placement"]
    originals = [p["treatments"]["D"]["original"] for p in copy["parts"]]
    assert originals == [other["id"], mark["id"]] and copy["words"]["heading"] == WORDS["heading"]


def test_a_draft_becomes_another_kind(designer, site, page, bright):
    plain = {**noun(bright), "kind": "picture", "words": None, "layout": {}}
    to_banner = f"/sites/{site['id']}/kinds/banner"
    answer = designer.post(to_banner, {"placement": plain})
    assert answer.status_code == 200
    assert answer.json()["kind"] == "banner" and answer.json()["words"]["heading"] == plain["name"]
    unknown = designer.post(f"/sites/{site['id']}/kinds/poster", {"placement": plain})
    assert unknown.status_code == 422
    assert "no kind of placement called poster" in unknown.json()["detail"]
