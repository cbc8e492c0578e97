"""Pages as a whole: their head and order, what shows on them, homes on several, one export."""

import pytest
from conftest import picture
from sites.models import Page
from test_archives import bring

pytestmark = pytest.mark.django_db


@pytest.fixture
def three(designer, site, placement, original):
    """A page of three placements that show the same original."""
    of = placement["page_id"]
    for name in ("Second", "Third"):
        noun = {**placement["placement"], "name": name}
        assert designer.post(f"/pages/{of}/placements", {"placement": noun}).status_code == 201
    return designer.get(f"/pages/{of}/reading").json()


def test_a_page_is_read_as_one_long_preview(designer, three):
    names = [p["name"] for p in three["reading"]["placements"]]
    assert names[1:] == ["Second", "Third"]
    assert three["reading"]["pane"]["markup"].count("<picture") == 3
    assert [s["order"] for s in three["reading"]["spans"]] == [[0, 1, 2]] * 4
    assert [b["kind"] for b in three["reading"]["bands"]] == ["fits", "weight", "weight"]


def test_a_page_is_there_at_once_as_it_was_last_read(designer, three, original, monkeypatch):
    """Whatever it was worked out of changes, the reading that is kept is no longer called
    current."""
    path = f"/pages/{three['id']}/reading"

    def told(query=""):
        return designer.get(path + query).json()

    assert three["current"]
    monkeypatch.setattr("endpoints.pages.screen.read_page", None)  # nothing is worked out
    assert told() == three == told("?as_remembered=true")
    monkeypatch.undo()
    row = designer.get(f"/placements/{three['ids'][0]}").json()
    body = {"revision": row["revision"], "placement": {**row["placement"], "name": "Pier"}}
    changes = [
        lambda: designer.put(f"/placements/{three['ids'][0]}", body),
        lambda: designer.call("patch", f"/originals/{original['id']}", {"alt": "A pier"}),
        lambda: designer.put(f"{path[:-8]}/layout", {"layout": {"D": {"head_px": 80}}}),
    ]
    for change in changes:
        assert change().status_code == 200
        then = told("?as_remembered=true")
        if change is not changes[-1]:  # what is laid out is read in the same breath
            assert not then["current"] and then["reading"] is not None
        assert told()["current"] and told("?as_remembered=true")["current"]


def test_a_page_that_was_never_read_is_told_without_its_reading(designer, placement):
    told = designer.get(f"/pages/{placement['page_id']}/reading?as_remembered=true").json()
    assert (told["reading"], told["current"]) == (None, False)
    assert told["ids"] == [placement["id"]]


@pytest.mark.parametrize("kept", [{"seen": {}}, {"print": 1}, [], {"seen": None, "print": ""}])
def test_a_glimpse_of_another_version_is_passed_over(designer, three, kept):
    Page.objects.filter(id=three["id"]).update(glimpse=kept)
    assert designer.get(f"/pages/{three['id']}/reading").json() == three


def test_its_order_and_head_are_kept_by_span_and_survive_what_is_removed(designer, three):
    layout = {"D": {"head_px": 72}, "A": {"order": [2, 0, 1], "head_over": True}}
    answer = designer.put(f"/pages/{three['id']}/layout", {"layout": layout})
    assert answer.status_code == 200
    a, *_, d = answer.json()["reading"]["spans"]
    assert (a["order"], a["head_px"], a["head_over"]) == ([2, 0, 1], 72, True)
    assert (d["order"], d["head_over"], d["own"]) == ([0, 1, 2], False, ["head_px"])
    # the order is one of placements, not of places
    designer.delete(f"/placements/{three['ids'][0]}")
    left = designer.get(f"/pages/{three['id']}/reading").json()
    assert left["reading"]["spans"][0]["order"] == [1, 0]


@pytest.mark.parametrize(
    ("layout", "said"),
    [
        ({"Q": {"head_px": 3}}, "no span Q"),
        ({"A": {"order": [0, 0]}}, "twice in the order"),
        ({"A": {"head_px": -4}}, "at least 0"),
        ({"A": {"head_px": 99999}}, "at most 2000"),
    ],
)
def test_a_layout_that_cannot_be_is_refused_in_words(designer, three, layout, said):
    answer = designer.put(f"/pages/{three['id']}/layout", {"layout": layout})
    assert answer.status_code == 422
    assert said in answer.content.decode()
    assert designer.get(f"/pages/{three['id']}/reading").json()["layout"] == {}


def test_a_placement_is_shown_or_not_in_one_span_and_that_is_a_step_of_its_history(designer, three):
    first = three["ids"][0]
    where = f"/pages/{three['id']}/placements/{first}/spans/B"
    now = designer.put(where, {"shows": False}).json()
    assert now["reading"]["placements"][0]["shows"] == ["A", "C", "D"]
    versions = designer.get(f"/placements/{first}/history").json()["versions"]
    assert versions[-1]["what"] == "Not shown in B"
    now = designer.put(where, {"shows": True}).json()
    assert now["reading"]["placements"][0]["shows"] == ["A", "B", "C", "D"]
    assert designer.put(where.replace("/B", "/Z"), {"shows": True}).status_code == 422


def test_one_placement_is_at_home_on_several_pages(designer, site, three):
    other = designer.post(f"/sites/{site['id']}/pages", {"title": "Visit"}).json()["id"]
    first = three["ids"][0]
    for _ in range(2):
        now = designer.post(f"/pages/{other}/homes", {"placement_id": first})
    assert now.json()["ids"] == [first]
    assert now.json()["from_elsewhere"] == {str(first): "Home"}
    rows = designer.get(f"/sites/{site['id']}/placements").json()
    assert [r["also_on"] for r in rows] == [[other], [], []]
    # changed in one place, it is changed on both
    saved = designer.get(f"/placements/{first}").json()
    body = {"revision": saved["revision"], "placement": {**saved["placement"], "name": "New name"}}
    assert designer.put(f"/placements/{first}", body).status_code == 200
    for id_ in (three["id"], other):
        names = designer.get(f"/pages/{id_}/reading").json()["reading"]["placements"]
        assert names[0]["name"] == "New name"
    assert designer.post(f"/pages/{three['id']}/homes", {"placement_id": first}).status_code == 422
    assert designer.delete(f"/pages/{other}/homes/{first}").status_code == 204
    assert designer.get(f"/pages/{other}/reading").json()["ids"] == []
    assert designer.get(f"/placements/{first}").status_code == 200


def test_pages_of_others_are_not_there(designer, stranger, three):
    assert stranger.get(f"/pages/{three['id']}/reading").status_code == 404
    for send, path, body in (
        (stranger.put, f"/pages/{three['id']}/layout", {"layout": {}}),
        (stranger.post, f"/pages/{three['id']}/homes", {"placement_id": three["ids"][0]}),
        (
            stranger.put,
            f"/pages/{three['id']}/placements/{three['ids'][0]}/spans/A",
            {"shows": False},
        ),
    ):
        assert send(path, body).status_code == 404


def test_breakpoints_carry_the_layout_over(designer, site, three):
    layout = {"D": {"head_px": 72}, "A": {"head_px": 40, "order": [1, 0, 2]}}
    designer.put(f"/pages/{three['id']}/layout", {"layout": layout})
    now = designer.get(f"/sites/{site['id']}").json()
    plan = {**now["plan"], "breakpoints": [400, 599, 1023, 1599]}
    body = {"name": now["name"], "revision": now["revision"], "plan": plan}
    assert designer.put(f"/sites/{site['id']}", body).status_code == 200
    spans = designer.get(f"/pages/{three['id']}/reading").json()["reading"]["spans"]
    assert [(s["head_px"], s["order"][0]) for s in spans] == [
        (40, 1),
        (40, 1),
        (72, 0),
        (72, 0),
        (72, 0),
    ]


def test_a_site_file_carries_homes_and_layouts(designer, site, three):
    other = designer.post(f"/sites/{site['id']}/pages", {"title": "Visit"}).json()["id"]
    designer.post(f"/pages/{other}/homes", {"placement_id": three["ids"][1]})
    designer.put(f"/pages/{other}/layout", {"layout": {"D": {"head_px": 50, "order": [0]}}})
    told = designer.get(f"/sites/{site['id']}/site.json").json()
    assert told["pages"][1]["also"] == [[0, 1]]
    assert told["pages"][1]["layout"] == {"D": {"head_px": 50.0, "order": [0]}}
    archive = b"".join(designer.get(f"/sites/{site['id']}/archive.zip").streaming_content)
    made = bring(designer, archive).json()
    again = designer.get(f"/sites/{made['id']}/site.json").json()
    assert again["pages"] == told["pages"]


def test_the_original_of_a_cut_is_used_whether_a_span_shows_it_or_not(designer, site, three):
    cut = designer.bring(site["id"], picture(seed=9), "short.jpg").json()
    noun = {"name": "Logo", "kind": "logo", "layout": {"D": {"cuts": [{"original": cut["id"]}]}}}
    made = designer.post(f"/pages/{three['id']}/placements", {"placement": noun})
    assert made.status_code == 201, made.json()
    assert designer.delete(f"/originals/{cut['id']}").status_code == 409
    rows = designer.get(f"/sites/{site['id']}/originals").json()
    assert next(r["used_in"] for r in rows if r["id"] == cut["id"]) == ["Home · Logo, a cut"]


def test_one_placement_of_a_page_is_let_load_first(designer, stranger, three):
    """The others that belong to the page no longer do; each change is a step of history."""
    path, (_, second, third) = f"/pages/{three['id']}/lead", three["ids"]
    answer = designer.put(path, {"placement_id": second})
    assert answer.status_code == 200
    lead = answer.json()["reading"]["lead"]
    assert lead["leads"] == [1]
    again = designer.put(path, {"placement_id": three["ids"][0]}).json()
    assert again["reading"]["lead"]["leads"] == [0]
    held = [designer.get(f"/placements/{i}").json() for i in three["ids"]]
    assert [h["placement"]["lead"] for h in held] == [True, False, False]
    what = designer.get(f"/placements/{second}/history").json()
    assert "Loads with the others" in str(what)
    revision = held[2]["revision"]
    designer.put(path, {"placement_id": three["ids"][0]})
    assert designer.get(f"/placements/{third}").json()["revision"] == revision
    assert designer.put(path, {"placement_id": 999999}).status_code == 404
    assert stranger.put(path, {"placement_id": second}).status_code == 404
