"""Undo and redo that survive the visit: versions on the server, named by what changed."""

import pytest
from conftest import one_part, own, with_own

pytestmark = pytest.mark.django_db


def version(placement, **changes):
    part = {k: changes.pop(k) for k in ("treatments", "alt") if k in changes}
    noun = {**with_own(placement["placement"], **part), **changes}
    return {"placement": noun, "looks": placement["looks"]}


def save(api, placement, now, history=None):
    body = {"revision": placement["revision"], **now, **({"history": history} if history else {})}
    return api.put(f"/placements/{placement['id']}", body)


def versions(api, placement):
    found = api.get(f"/placements/{placement['id']}/history").json()
    return found["at"], [s["what"] for s in found["versions"]]


def with_a(placement, **treatment):
    treatments = own(placement["placement"])
    return version(placement, treatments={**treatments, "A": {**treatments["A"], **treatment}})


def test_a_new_placement_has_one_step(designer, placement):
    assert versions(designer, placement) == (0, ["As it was"])


def test_steps_are_named_by_what_changed(designer, placement, original):
    one = with_a(placement, fit="contain")
    two = with_a(placement, fit="contain", height={"kind": "ratio", "w": 4, "h": 5})
    three = {**two, "looks": {original["id"]: {"focal": [0.2, 0.3], "areas": []}}}
    area = {"name": "Mast", "rect": {"x": 0.1, "y": 0.1, "w": 0.2, "h": 0.2}}
    four = {**two, "looks": {original["id"]: {"focal": [0.2, 0.3], "areas": [area]}}}
    saved = save(designer, placement, four, {"keep": 0, "add": [one, two, three, four], "at": 4})
    assert saved.status_code == 200 and saved.json()["at"] == 4
    assert versions(designer, placement) == (
        4,
        [
            "As it was",
            "Fit of span A",
            "Height of span A",
            "Focal point of boats.jpg",
            "Mast drawn",
        ],
    )


def test_undo_moves_the_place_and_keeps_what_was_undone(designer, placement):
    one, two = with_a(placement, fit="contain"), with_a(placement, fit="contain", whole=True)
    saved = save(designer, placement, two, {"keep": 0, "add": [one, two], "at": 2}).json()
    undone = save(designer, saved, one, {"keep": 2, "add": [], "at": 1})
    assert undone.json()["at"] == 1 and own(undone.json()["placement"])["A"]["fit"] == "contain"
    assert "whole" not in {
        k for k, v in own(undone.json()["placement"])["A"].items() if v is not None
    }
    at, names = versions(designer, placement)
    assert at == 1 and names[2] == "What the files carry of span A"  # still there to be done again


def test_a_change_after_an_undo_drops_what_was_undone(designer, placement):
    one, two, other = (
        with_a(placement, fit="contain"),
        version(placement, name="Two"),
        version(placement, name="Other"),
    )
    saved = save(designer, placement, two, {"keep": 0, "add": [one, two], "at": 2}).json()
    saved = save(designer, saved, one, {"keep": 2, "add": [], "at": 1}).json()
    save(designer, saved, other, {"keep": 1, "add": [other], "at": 2})
    assert versions(designer, placement) == (2, ["As it was", "Fit of span A", "Name and 1 more"])


def test_a_save_without_history_is_one_step(designer, placement):
    save(designer, placement, version(placement, name="Two"))
    assert versions(designer, placement) == (1, ["As it was", "Name"])


@pytest.mark.parametrize(
    "history",
    [
        {"keep": 7, "add": [], "at": 9},
        {"keep": -1, "add": [], "at": -1},
        {"keep": 0, "add": [], "at": 3},
    ],
)
def test_a_history_that_does_not_fit_loses_nothing(designer, placement, history):
    assert save(designer, placement, version(placement, name="Two"), history).status_code == 200
    assert versions(designer, placement) == (1, ["As it was", "Name"])


def test_the_oldest_versions_are_forgotten(designer, placement, monkeypatch):
    monkeypatch.setattr("placements.history.MOST_VERSIONS", 3)
    versions = [version(placement, name=f"N{i}") for i in range(6)]
    save(designer, placement, versions[-1], {"keep": 0, "add": versions, "at": 6})
    found = designer.get(f"/placements/{placement['id']}/history").json()
    assert found["at"] == 6 and [s["position"] for s in found["versions"]] == [4, 5, 6]


def test_a_new_breakpoint_carries_the_history_over(designer, site, placement):
    save(designer, placement, with_a(placement, fit="contain"), None)
    plan = {**site["plan"], "breakpoints": [400, 599, 1023, 1599]}
    assert (
        designer.put(f"/sites/{site['id']}", {"name": "x", "plan": plan, "revision": 1}).status_code
        == 200
    )
    first = designer.get(f"/placements/{placement['id']}/history").json()["versions"][0][
        "placement"
    ]
    # what A and D set before; the new A is handed B's down
    assert set(own(first)) == {
        "B",
        "E",
    }


def test_a_conflict_says_what_differs(designer, placement):
    save(designer, placement, with_a(placement, fit="contain"))
    late = save(designer, placement, version(placement, name="Late"))
    assert late.status_code == 409
    assert [e["sentence"] for e in late.json()["errors"]] == ["Name", "Fit of span A"]


def test_an_area_called_otherwise_takes_its_spans_along(designer, placement, original):
    mast, bell = (
        {"name": n, "rect": {"x": x, "y": 0.1, "w": 0.2, "h": 0.2}}
        for n, x in (("Mast", 0.1), ("Bell", 0.5))
    )
    look = {"focal": [0.5, 0.5], "areas": [mast, bell]}

    def put(first):
        (now,) = (
            o
            for o in designer.get(f"/sites/{placement['site_id']}/originals").json()
            if o["id"] == original["id"]
        )
        return designer.put(
            f"/originals/{original['id']}/look",
            {**look, "areas": [first, bell], "revision": now["revision"]},
        )

    put(mast)
    now = with_a(designer.get(f"/placements/{placement['id']}").json(), keeps=["Mast"])
    saved = save(designer, placement, now).json()
    assert put({**mast, "name": "Light"}).status_code == 200
    now = designer.get(f"/placements/{placement['id']}").json()
    assert (
        own(now["placement"])["A"]["keeps"] == ["Light"]
        and now["revision"] == saved["revision"] + 1
    )
    assert versions(designer, placement)[1][-1] == "Mast is called Light"
    # an area that is moved renames nothing
    put({**mast, "name": "Light", "rect": bell["rect"]})
    assert designer.get(f"/placements/{placement['id']}").json()["revision"] == now["revision"]


def test_an_area_renamed_on_one_desk_keeps_its_place_in_other_placements(
    designer, page, placement, original
):
    mast = {"name": "Mast", "rect": {"x": 0.1, "y": 0.1, "w": 0.2, "h": 0.2}}
    here = version(placement) | {"looks": {original["id"]: {"focal": [0.5, 0.5], "areas": [mast]}}}
    saved = save(designer, placement, here).json()
    other = one_part("Elsewhere", {"D": {"original": original["id"], "keeps": ["Mast"]}})
    other = designer.post(f"/pages/{page['id']}/placements", {"placement": other}).json()
    here["looks"][original["id"]]["areas"] = [{**mast, "name": "Light"}]
    assert save(designer, saved, here).status_code == 200
    follows = designer.get(f"/placements/{other['id']}").json()
    assert own(follows["placement"])["D"]["keeps"] == ["Light"]
    assert versions(designer, other)[1][-1] == "Mast is called Light"


def test_nobody_else_sees_the_history(stranger, placement):
    assert stranger.get(f"/placements/{placement['id']}/history").status_code == 404
