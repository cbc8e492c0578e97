"""All that fails in a site, and its remedies applied and undone at once."""

import pytest
from conftest import one_part, own

pytestmark = pytest.mark.django_db

WIDE = {"name": "Shore", "rect": {"x": 0.05, "y": 0.3, "w": 0.9, "h": 0.3}}


@pytest.fixture
def failing(designer, placement, original):
    """A keep area over 90 % of an 8:5 picture: whole in 2:1 and wider spans, cut in the square of
    span A."""
    body = {
        "revision": placement["revision"],
        "placement": placement["placement"],
        "looks": {original["id"]: {"focal": [0.5, 0.5], "areas": [WIDE]}},
    }
    return designer.put(f"/placements/{placement['id']}", body).json()


def test_what_fails_is_listed_with_a_remedy_and_a_preview(designer, site, failing):
    (found,) = designer.get(f"/sites/{site['id']}/remedies").json()
    assert (found["page"], found["name"], found["advice"]["span"]) == ("Home", "Lighthouse", "A")
    assert "Shore is cut from 320 to 599 px" in found["findings"][0]["sentence"]
    assert found["before"]["frame_ratio"] == 1 and found["before"]["window"]["w"] == pytest.approx(
        0.625
    )
    assert found["advice"]["steps"][found["advice"]["best"]]["kind"] == "whole"
    after = found["after"][found["advice"]["best"]]
    assert after["frame_ratio"] == pytest.approx(1.6) and after["window"]["w"] == 1
    assert found["after"][0] is None  # no position helps
    assert [
        a["show"]
        for a, s in zip(found["after"], found["advice"]["steps"], strict=True)
        if a and s["label"] == "Only the colour"
    ] == ["colour"]


def test_a_site_where_all_is_whole_has_none(designer, site, placement):
    assert designer.get(f"/sites/{site['id']}/remedies").json() == []


def test_remedies_are_applied_and_undone_with_one_press_each(designer, site, failing):
    (found,) = designer.get(f"/sites/{site['id']}/remedies").json()
    choice = {
        "placement_id": failing["id"],
        "revision": failing["revision"],
        "span": "A",
        "remedy": found["advice"]["best"],
    }
    (outcome,) = designer.post(f"/sites/{site['id']}/remedies", {"choices": [choice]}).json()
    assert outcome["applied"] and outcome["sentence"] == "Lighthouse: Show it whole in A."
    assert designer.get(f"/sites/{site['id']}/remedies").json() == []
    history = designer.get(f"/placements/{failing['id']}/history").json()
    assert history["versions"][-1]["what"] == "Remedy: Show it whole in A"

    undo = {"placements": [[failing["id"], outcome["revision"]]]}
    (undone,) = designer.post(f"/sites/{site['id']}/remedies/undo", undo).json()
    assert undone["applied"] and len(designer.get(f"/sites/{site['id']}/remedies").json()) == 1
    (again,) = designer.post(f"/sites/{site['id']}/remedies/undo", undo).json()
    assert not again["applied"] and "stays as it is" in again["sentence"]


def test_a_placement_that_was_changed_meanwhile_is_left_alone(designer, site, failing):
    choice = {
        "placement_id": failing["id"],
        "revision": failing["revision"] - 1,
        "span": "A",
        "remedy": 1,
    }
    (outcome,) = designer.post(f"/sites/{site['id']}/remedies", {"choices": [choice]}).json()
    assert not outcome["applied"] and "changed meanwhile" in outcome["sentence"]
    assert designer.get(f"/placements/{failing['id']}").json()["placement"] == failing["placement"]


@pytest.mark.parametrize(("span", "step"), [("A", 0), ("A", 39), ("C", 0), ("Z", 0)])
def test_a_step_that_does_not_work_is_not_taken(designer, site, failing, span, step):
    choice = {
        "placement_id": failing["id"],
        "revision": failing["revision"],
        "span": span,
        "remedy": step,
    }
    (outcome,) = designer.post(f"/sites/{site['id']}/remedies", {"choices": [choice]}).json()
    assert not outcome["applied"] and "no such remedy" in outcome["sentence"]


def test_a_remedy_changes_its_span_and_those_that_it_says_follow(
    designer, site, placement, original
):
    """B is handed its square down from C, so that it changes with C; A has its own."""
    treatments = {
        "D": own(placement["placement"])["D"],
        "C": {"height": {"kind": "ratio", "w": 1, "h": 1}},
        "A": {"height": {"kind": "ratio", "w": 2, "h": 1}},
    }
    body = {
        "revision": placement["revision"],
        "placement": one_part("Lighthouse", treatments),
        "looks": {original["id"]: {"focal": [0.5, 0.5], "areas": [WIDE]}},
    }
    saved = designer.put(f"/placements/{placement['id']}", body).json()
    found = {r["advice"]["span"]: r for r in designer.get(f"/sites/{site['id']}/remedies").json()}
    assert set(found) == {"B", "C"}
    best = found["C"]["advice"]["steps"][found["C"]["advice"]["best"]]
    assert best["follow"] == ["B"]
    draft = {"placement": saved["placement"], "looks": saved["looks"]}
    before = designer.post(f"/sites/{site['id']}/readings", draft).json()
    choice = {
        "placement_id": saved["id"],
        "revision": saved["revision"],
        "span": "C",
        "remedy": found["C"]["advice"]["best"],
    }
    assert designer.post(f"/sites/{site['id']}/remedies", {"choices": [choice]}).json()[0][
        "applied"
    ]
    after_row = designer.get(f"/placements/{placement['id']}").json()
    draft = {"placement": after_row["placement"], "looks": after_row["looks"]}
    after = designer.post(f"/sites/{site['id']}/readings", draft).json()
    changed = [
        a["letter"]
        for a, b in zip(after["parts"]["0"]["spans"], before["parts"]["0"]["spans"], strict=True)
        if a["fingerprint"] != b["fingerprint"]
    ]
    assert sorted(changed) == ["B", "C"]
    assert set(after_row["placement"]["parts"][0]["treatments"]) == {"A", "C", "D"}


def test_both_spans_of_one_placement_are_remedied_together(designer, site, placement, original):
    treatments = {
        "D": own(placement["placement"])["D"],
        "C": {"height": {"kind": "ratio", "w": 1, "h": 1}},
    }
    body = {
        "revision": placement["revision"],
        "placement": one_part("Lighthouse", treatments),
        "looks": {original["id"]: {"focal": [0.5, 0.5], "areas": [WIDE]}},
    }
    designer.put(f"/placements/{placement['id']}", body)
    found = designer.get(f"/sites/{site['id']}/remedies").json()
    assert [r["advice"]["span"] for r in found] == ["C", "B", "A"]  # the widest first
    choices = [
        {
            "placement_id": r["placement_id"],
            "revision": r["revision"],
            "span": r["advice"]["span"],
            "remedy": r["advice"]["best"],
        }
        for r in found
    ]
    (outcome,) = designer.post(f"/sites/{site['id']}/remedies", {"choices": choices}).json()
    assert outcome["applied"] and designer.get(f"/sites/{site['id']}/remedies").json() == []


def test_a_stranger_cannot_apply_anything(stranger, site, failing):
    choice = {
        "placement_id": failing["id"],
        "revision": failing["revision"],
        "span": "A",
        "remedy": 1,
    }
    assert stranger.post(f"/sites/{site['id']}/remedies", {"choices": [choice]}).status_code == 404
