"""Sites, pages, membership and breakpoints."""

import pytest
from conftest import own

pytestmark = pytest.mark.django_db


def test_a_new_site_has_the_usual_spans(site):
    assert [(s["letter"], s["first"], s["last"]) for s in site["spans"]] == [
        ("A", 320, 599),
        ("B", 600, 1023),
        ("C", 1024, 1599),
        ("D", 1600, 2560),
    ]


@pytest.mark.parametrize(
    ("plan", "said"),
    [
        ({"breakpoints": [599, 599]}, "twice"),
        ({"breakpoints": [100]}, "outside"),
        ({"breakpoints": [None]}, "whole number"),
        ({"narrowest": 900, "widest": 800}, "must not be above"),
        ({"formats": ["avif"]}, "JPEG must stay"),
        ({"densities": [2]}, "1x must stay"),
        ({"likeness": 0.2}, "at least 0.5"),
        ({"nonsense": 1}, "not known"),
    ],
)
def test_a_plan_that_cannot_be_is_refused_with_a_sentence(designer, plan, said):
    answer = designer.post("/sites", {"name": "x", "plan": plan})
    assert answer.status_code == 422 and said in answer.json()["detail"]
    assert answer.json()["errors"][0]["field"].startswith("plan")
    assert designer.get("/sites").json() == []


@pytest.mark.parametrize("name", ["", "   ", "x" * 81])
def test_names_are_needed_and_have_an_end(designer, name):
    answer = designer.post("/sites", {"name": name})
    assert answer.status_code == 422 and answer.json()["errors"][0]["field"] == "name"


def test_someone_else_s_site_is_not_there(stranger, site, page, original, placement):
    s, p, o, q = site["id"], page["id"], original["id"], placement["id"]
    for method, path, body in [
        ("get", f"/sites/{s}", None),
        ("put", f"/sites/{s}", {"name": "x", "revision": 1, "plan": {}}),
        ("delete", f"/sites/{s}", None),
        ("post", f"/sites/{s}/pages", {"title": "x"}),
        ("put", f"/pages/{p}", {"title": "x"}),
        ("delete", f"/pages/{p}", None),
        ("get", f"/sites/{s}/originals", None),
        ("patch", f"/originals/{o}", {"alt": "x"}),
        ("delete", f"/originals/{o}", None),
        ("get", f"/originals/{o}/preview/480", None),
        ("get", f"/sites/{s}/placements", None),
        ("post", f"/pages/{p}/placements", {"placement": {"name": "x"}}),
        ("get", f"/placements/{q}", None),
        ("put", f"/placements/{q}", {"revision": 1, "placement": {"name": "x"}}),
        ("delete", f"/placements/{q}", None),
        ("post", f"/sites/{s}/readings", {"placement": {"name": "x"}}),
        ("post", f"/placements/{q}/deliveries", {}),
        ("get", f"/placements/{q}/deliveries/latest", None),
        ("get", f"/sites/{s}/deliveries", None),
    ]:
        answer = stranger.call(method, path, body)
        assert answer.status_code == 404, (method, path)
    assert stranger.get("/sites").json() == []


def test_a_stale_change_answers_409_with_theirs(designer, site):
    ask = {"name": "First", "revision": 1, "plan": site["plan"]}
    assert designer.put(f"/sites/{site['id']}", ask).json()["revision"] == 2
    answer = designer.put(f"/sites/{site['id']}", {**ask, "name": "Second"})
    assert answer.status_code == 409 and answer.json()["theirs"]["name"] == "First"


def test_a_new_breakpoint_carries_placements_over(designer, site, placement):
    plan = {**site["plan"], "breakpoints": [599, 800, 1023, 1599]}
    answer = designer.put(f"/sites/{site['id']}", {"name": "x", "revision": 1, "plan": plan})
    assert [s["letter"] for s in answer.json()["spans"]] == list("ABCDE")
    carried = designer.get(f"/placements/{placement['id']}").json()
    assert (
        set(own(carried["placement"])) == {"A", "E"}
        and carried["revision"] == placement["revision"] + 1
    )


def test_moving_a_breakpoint_leaves_placements_alone(designer, site, placement):
    plan = {**site["plan"], "breakpoints": [640, 1023, 1599]}
    designer.put(f"/sites/{site['id']}", {"name": "x", "revision": 1, "plan": plan})
    assert (
        designer.get(f"/placements/{placement['id']}").json()["revision"] == placement["revision"]
    )


def test_pages_in_order_renamed_and_removed(designer, site):
    def pages():
        return [p["title"] for p in designer.get(f"/sites/{site['id']}").json()["pages"]]

    assert pages() == ["Home"]  # every site begins with it
    (home,) = site["pages"]
    assert designer.post(f"/sites/{site['id']}/pages", {"title": "Visit"}).status_code == 201
    designer.put(f"/pages/{home['id']}", {"title": "Start"})
    assert pages() == ["Start", "Visit"]
    assert designer.delete(f"/pages/{home['id']}").status_code == 204
    assert pages() == ["Visit"]


def test_the_list_of_sites_shows_what_is_in_them_and_how_it_fares(designer, site, placement):
    designer.post("/sites", {"name": "Bare"})
    bare, full = designer.get("/sites").json()
    assert (bare["name"], bare["placements"], bare["pages"]) == ("Bare", 0, 1)
    assert (full["placements"], full["delivered"]) == (1, None)
    nothing = {"shown": [], "findings": 0, "failing": 0}
    assert designer.get(f"/sites/{bare['id']}/glance").json() == nothing
    seen = designer.get(f"/sites/{full['id']}/glance").json()
    assert (seen["findings"], seen["failing"]) == (2, 1)
    (lead,) = seen["shown"]
    assert (lead["name"], [f["letter"] for f in lead["strip"]]) == ("Lighthouse", ["D", "A"])
    assert lead["strip"][0]["cells"][0]["frame"]["thumb"].startswith("/api/originals/")


def test_a_removed_site_takes_its_own_along(designer, site, placement):
    assert designer.delete(f"/sites/{site['id']}").status_code == 204
    assert designer.get(f"/placements/{placement['id']}").status_code == 404
