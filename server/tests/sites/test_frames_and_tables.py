"""Named frames, widths found in files of others, the audience as a table, stand-ins."""

import io
import re
import zipfile

import pytest
from conftest import one_part, own, picture, with_own
from PIL import Image

pytestmark = pytest.mark.django_db

HALF = {"kind": "share", "percent": 50, "of": "page", "least_px": None, "greatest_px": None}
HERO = {"id": "hero", "name": "hero", "spans": {"D": {"width": HALF}}}


def with_frames(designer, site, frames, **plan):
    now = designer.get(f"/sites/{site['id']}").json()
    return designer.put(
        f"/sites/{site['id']}",
        {
            "name": now["name"],
            "revision": now["revision"],
            "plan": {**now["plan"], "frames": frames, **plan},
        },
    )


def framed(designer, placement, **said):
    now = designer.get(f"/placements/{placement['id']}").json()
    asked = {"revision": now["revision"], **said}
    return designer.post(f"/placements/{placement['id']}/frame", asked)


def named(designer, site, placement):
    framed(designer, placement, name="Hero one")
    return designer.get(f"/sites/{site['id']}").json()["plan"]["frames"]


def shown(designer, site, placement):
    """Frame widths at both ends of every span."""
    body = designer.get(f"/placements/{placement['id']}").json()["placement"]
    asked = {"placement": body, "placement_id": placement["id"]}
    reading = designer.post(f"/sites/{site['id']}/readings", asked).json()
    return [(s["first"], s["last"], s["frame_w"]["points"]) for s in reading["parts"]["0"]["spans"]]


def test_a_frame_is_named_used_by_another_changed_and_left(designer, site, page, placement):
    answer = framed(designer, placement, name="Hero")
    assert answer.status_code == 200 and answer.json()["placement"]["frame"] == "hero"
    before = shown(designer, site, placement)
    assert own(answer.json()["placement"])["D"]["width"] is None
    other = designer.post(
        f"/pages/{page['id']}/placements", {"placement": one_part("Other", {})}
    ).json()
    assert framed(designer, other, frame="hero").status_code == 200
    assert shown(designer, site, other)[3][2][0][1] == 120
    assert designer.get(f"/sites/{site['id']}/frames/uses").json() == {
        "hero": ["Home · Lighthouse", "Home · Other"]
    }
    # changed in one place
    (frame,) = designer.get(f"/sites/{site['id']}").json()["plan"]["frames"]
    frame["spans"]["D"]["width"] = HALF
    assert with_frames(designer, site, [frame]).status_code == 200
    assert shown(designer, site, other)[3][2][-1] == [2560, 1280]
    # one parts from it and stays as it is, whatever becomes of the frame
    assert framed(designer, other, frame=None).json()["placement"].get("frame") is None
    frame["spans"]["D"]["width"] = {"kind": "full"}
    with_frames(designer, site, [frame])
    assert shown(designer, site, other)[3][2][-1] == [2560, 1280]
    assert shown(designer, site, placement)[3][2][-1] == [2560, 2560] != before[3][2][-1]


def test_a_frame_that_is_removed_leaves_its_values(designer, site, placement):
    framed(designer, placement, name="Hero")
    before = shown(designer, site, placement)
    assert with_frames(designer, site, []).status_code == 200
    assert shown(designer, site, placement) == before
    assert designer.get(f"/placements/{placement['id']}").json()["placement"].get("frame") is None
    history = designer.get(f"/placements/{placement['id']}/history").json()
    assert all(v["placement"].get("frame") is None for v in history["versions"])


def test_frames_follow_the_breakpoints(designer, site, placement):
    framed(designer, placement, name="Hero")
    assert with_frames(designer, site, [HERO, {**HERO, "id": "b", "name": "b"}]).status_code == 200
    now = designer.get(f"/sites/{site['id']}").json()
    plan = {**now["plan"], "breakpoints": [599]}
    answer = designer.put(
        f"/sites/{site['id']}", {"name": "x", "revision": now["revision"], "plan": plan}
    )
    assert answer.status_code == 200, answer.json()
    assert [list(f["spans"]) for f in answer.json()["plan"]["frames"]] == [["B"], ["B"]]


def test_frames_changed_together_with_the_breakpoints_are_carried(designer, site, placement):
    """A form speaks of the spans that it shows; a frame that it adds or changes is not lost, and
    placements follow the frame as it is changed."""
    (own,) = named(designer, site, placement)
    changed = {**own, "spans": {"D": {**own["spans"].get("D", {}), "width": HALF}}}
    answer = with_frames(designer, site, [changed, HERO], breakpoints=[599])
    assert answer.status_code == 200, answer.json()
    frames = answer.json()["plan"]["frames"]
    assert [(f["id"], list(f["spans"])) for f in frames] == [(own["id"], ["B"]), ("hero", ["B"])]
    assert shown(designer, site, placement)[1][2][-1] == [2560, 1280]


@pytest.mark.parametrize(
    ("said", "status", "sentence"),
    [
        ({"name": "hero"}, 422, "already"),
        ({"name": " "}, 422, "blank"),
        ({"name": "x" * 41}, 422, "too long"),
        ({"frame": "none-such"}, 422, "no such frame"),
        ({"frame": "Ü"}, 422, "small letter"),
        ({"revision": 99, "frame": "hero"}, 409, "changed elsewhere"),
    ],
)
def test_frames_that_cannot_be_are_refused(designer, site, placement, said, status, sentence):
    with_frames(designer, site, [HERO])
    before = designer.get(f"/placements/{placement['id']}").json()
    answer = framed(designer, placement, **said)
    assert answer.status_code == status and sentence in answer.json()["detail"]
    assert designer.get(f"/placements/{placement['id']}").json() == before


@pytest.mark.parametrize(
    ("frames", "sentence"),
    [
        ([HERO, HERO], "Two frames are called"),
        ([{**HERO, "spans": {"Z": {}}}], "speaks of span Z"),
        ([{**HERO, "id": "3"}], "begin with a small letter"),
    ],
)
def test_frames_of_a_site_that_cannot_be_are_refused(designer, site, frames, sentence):
    answer = with_frames(designer, site, frames)
    assert answer.status_code == 422 and sentence in answer.json()["detail"]
    made = designer.post("/sites", {"name": "x", "plan": {"frames": frames}})
    assert made.status_code == 422 and sentence in made.json()["detail"]


def test_who_may_only_look_or_nothing_is_told_so(stranger, site, placement):
    assert stranger.post(f"/sites/{site['id']}/found", {"text": "x"}).status_code == 404
    chosen = [{"what": "breakpoint", "px": 599}]
    taken = stranger.post(f"/sites/{site['id']}/found/taken", {"plan": {}, "chosen": chosen})
    assert taken.status_code == 404
    for path in ("frames/uses", "audience.csv"):
        assert stranger.get(f"/sites/{site['id']}/{path}").status_code == 404
    answer = stranger.post(f"/placements/{placement['id']}/frame", {"revision": 1})
    assert answer.status_code == 404
    assert stranger.get(f"/placements/{placement['id']}/placeholders/svg").status_code == 404


def test_widths_are_found_and_come_back_from_their_table(designer, site):
    css = "@media (max-width: 599px) { .page { max-width: 1080px; padding: 0 20px } }"
    found = designer.post(f"/sites/{site['id']}/found", {"text": css}).json()
    assert {(w["what"], w["px"]) for w in found["widths"]} == {
        ("breakpoint", 599),
        ("container", 1080),
        ("margin", 20),
    }
    again = designer.post(f"/sites/{site['id']}/found", {"text": found["csv"]}).json()
    assert [(w["what"], w["px"]) for w in again["widths"]] == [
        (w["what"], w["px"]) for w in found["widths"]
    ]


def test_widths_that_are_chosen_come_back_in_the_plan(designer, site):
    def take(*chosen):
        asked = {"plan": site["plan"], "chosen": [{"what": w, "px": px} for w, px in chosen]}
        return designer.post(f"/sites/{site['id']}/found/taken", asked)

    plan = take(("breakpoint", 599.98), ("columns", 3), ("gutter", 20)).json()
    assert plan["breakpoints"] == [599] and plan["frames"][0]["name"] == "one of 3 columns"
    assert designer.get(f"/sites/{site['id']}").json()["plan"] == site["plan"]
    refused = take(("breakpoint", 100_000))
    assert refused.status_code == 422 and "outside the site's widths" in refused.json()["detail"]


def test_a_text_that_asks_for_too_much_is_refused_in_words(designer, site):
    """2.6 kB of CSS whose properties fan out, and 0.9 MB of media queries."""
    named = "".join(f"--a{i}:{f'var(--a{i + 1}) ' * 40};" for i in range(6))
    answer = designer.post(
        f"/sites/{site['id']}/found", {"text": f"a{{{named}max-width:var(--a0)}}"}
    )
    assert answer.status_code == 422
    assert answer.json()["detail"].endswith("Give the part with its media queries.")
    css = "".join(
        f"@media (min-width:{i}px){{.a{i}{{max-width:{i + 400}px}}}}" for i in range(20_000)
    )
    answer = designer.post(f"/sites/{site['id']}/found", {"text": css})
    assert answer.status_code in (200, 422) and len(answer.content) < 200_000


@pytest.mark.parametrize(
    ("text", "status", "sentence"),
    [
        ("", 422, "nothing to read"),
        ("{", 422, "no JSON"),
        ("a { color: red } " * 70_000, 422, "at most 1 MB"),
        ("a" * 5_100_000, 413, "more than 5 MB"),
        ("what,px\nbreakpoint,wide", 422, "Line 2, px"),
    ],
)
def test_what_cannot_be_read_is_said(designer, site, text, status, sentence):
    answer = designer.post(f"/sites/{site['id']}/found", {"text": text})
    assert answer.status_code == status and sentence in answer.json()["detail"]


def send(designer, site, data):
    upload = io.BytesIO(data)
    upload.name = "audience.csv"
    return designer.client.post(f"/api/sites/{site['id']}/audience/table", {"file": upload})


def test_an_audience_comes_in_and_goes_out_as_a_table(designer, site):
    table = "width;height;density;weight\n390;844;3;60\n1440;900;1,5;40\n".encode("utf-16")
    rows = send(designer, site, table).json()
    now = designer.get(f"/sites/{site['id']}").json()
    plan = {**now["plan"], "audience": rows}
    kept = designer.put(f"/sites/{site['id']}", {"name": "x", "revision": 1, "plan": plan})
    assert kept.status_code == 200
    out = designer.get(f"/sites/{site['id']}/audience.csv")
    assert out.content.decode() == (
        "width,height,density,weight\r\n390,844,3,60\r\n1440,900,1.5,40\r\n"
    )
    assert send(designer, site, out.content).json() == rows


@pytest.mark.parametrize(
    ("table", "sentence"),
    [
        (b"", "empty"),
        (b"390,844,3,0\n", "nobody looks"),
        (b"390,844,3,1\n1440,tall,1,1", "Line 2, height"),
        (picture(), "Line 1: there is no column|Line \\d+"),
        (b"1" * 1_100_000, "at most 1 MB"),
    ],
)
def test_a_table_that_is_none_is_refused(designer, site, table, sentence):
    answer = send(designer, site, table)
    assert answer.status_code == 422 and re.search(sentence, answer.json()["detail"])


def test_stand_ins_have_the_px_that_the_plan_asks_for(designer, page):
    body = one_part(
        "Café",
        {
            "D": {
                "width": {"kind": "fixed", "width_px": 471},
                "height": {"kind": "fixed", "height_px": 200},
            },
            "A": {"show": "nothing"},
        },
    )
    made = designer.post(f"/pages/{page['id']}/placements", {"placement": body}).json()
    answer = designer.get(f"/placements/{made['id']}/placeholders/png")
    archive = zipfile.ZipFile(io.BytesIO(answer.content))
    assert sorted(archive.namelist()) == [
        "cafe--b.png",
        "cafe--b@2x.png",
        "cafe--c.png",
        "cafe--c@2x.png",
        "cafe.png",
        "cafe@2x.png",
    ]
    assert Image.open(archive.open("cafe@2x.png")).size == (942, 400)
    svg = designer.get(f"/placements/{made['id']}/placeholders/svg?span=B")
    archive = zipfile.ZipFile(io.BytesIO(svg.content))
    assert "942 × 400 px" in archive.read("cafe--b@2x.svg").decode()


def test_no_stand_in_where_nothing_is_missing(designer, placement, page):
    answer = designer.get(f"/placements/{placement['id']}/placeholders/svg")
    assert answer.status_code == 404 and "nothing to stand in for" in answer.json()["detail"]
    tall = {"D": {"height": {"kind": "fixed", "height_px": 20000}}}
    made = designer.post(
        f"/pages/{page['id']}/placements", {"placement": one_part("x", tall)}
    ).json()
    answer = designer.get(f"/placements/{made['id']}/placeholders/png")
    assert answer.status_code == 422 and "Take the SVG" in answer.json()["detail"]


def test_the_sum_of_a_width_is_told_at_any_viewport_width(designer, site, placement):
    """At the cursor, not only at a span's ends; outside of the site's widths, at the nearest."""
    share = {"kind": "share", "percent": 50}
    noun = with_own(placement["placement"], treatments={"D": {"original": None, "width": share}})
    noun["parts"][0]["treatments"]["D"]["original"] = own(placement["placement"])["D"]["original"]
    path = f"/sites/{site['id']}/readings/sum"

    def told(at, **more):
        return designer.post(path, {"placement": noun, "at": at, **more})

    assert told(1281).json() == {"at": 1281, "text": "50 % of 1281 = 640.5"}
    assert told(1281, scrollbar_px=15).json()["text"] == "50 % of 1266 = 633"
    assert told(19_000).json()["at"] == 2560
    assert told(1281, part=3).status_code == 404
    assert told(0).status_code == 422
