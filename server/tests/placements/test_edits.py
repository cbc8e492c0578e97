"""Changes that bring others with them, asked of the API: what the core makes of them, and what is
said of those that cannot be had."""

from __future__ import annotations

import pytest
from conftest import one_part, own


@pytest.fixture
def draft(original):
    area = {"name": "Tern", "rect": {"x": 0.1, "y": 0.1, "w": 0.3, "h": 0.3}}
    looks = {str(original["id"]): {"focal": [0.5, 0.5], "areas": [area]}}
    placement = one_part("Mast", {"D": {"original": original["id"]}})
    return {"placement": placement, "looks": looks}


def test_the_first_picture_is_for_every_width(designer, site, draft):
    (id_,) = map(int, draft["looks"])
    bare = {**draft, "placement": one_part("Mast", {})}
    given = {"kind": "original", "part": 0, "letter": "A", "original": id_}
    made = designer.post(f"/sites/{site['id']}/edits", {**bare, "edit": given}).json()
    assert own(made)["D"]["original"] == id_ and "A" not in own(made)


def test_one_span_alone_keeps_the_areas_that_its_looks_name(designer, site, draft):
    """An area that is only drawn on the desk so far: it is nowhere but in the draft."""
    placement = draft["placement"]
    placement = one_part("Mast", {**own(placement), "C": {"keeps": []}})
    step = {"part": 0, "letter": "C", "treatment": {"keeps": []}}
    edit = {"kind": "only-there", **step, "before": draft["placement"]}
    asked = {"placement": placement, "looks": draft["looks"], "edit": edit}
    made = designer.post(f"/sites/{site['id']}/edits", asked).json()
    assert own(made)["B"]["keeps"] == ["Tern"]


@pytest.mark.parametrize(
    ("edit", "field"),
    [
        ({"kind": "original", "part": 0, "letter": "H", "original": 1}, "edit.letter"),
        ({"kind": "original", "part": 9, "letter": "A", "original": 1}, "edit.part"),
        ({"kind": "area", "original": 1, "before": "a", "after": ""}, "edit.after"),
        (
            {"kind": "all-spans", "part": 0, "letter": "A", "treatment": {"fit": "x"}},
            "edit.treatment.fit",
        ),
    ],
    ids=lambda e: e if isinstance(e, str) else e["kind"],
)
def test_what_cannot_be_had_says_where(designer, site, draft, edit, field):
    answer = designer.post(f"/sites/{site['id']}/edits", {**draft, "edit": edit})
    assert answer.status_code == 422
    assert [e["field"] for e in answer.json()["errors"]] == [field]


def test_nobody_else_is_answered(stranger, site, draft):
    edit = {"kind": "area", "original": 1, "before": "a", "after": "b"}
    assert stranger.post(f"/sites/{site['id']}/edits", {**draft, "edit": edit}).status_code == 404


def test_a_rule_of_another_kind_begins_with_the_bounds_of_the_one_before(designer):
    full = {"kind": "full", "least_px": 300, "greatest_px": 900}
    made = designer.post("/width-rules/columns", {"rule": full}).json()
    assert (made["kind"], made["columns"], made["least_px"], made["greatest_px"]) == (
        "columns",
        3,
        300,
        900,
    )
    natural = {"rule": {"kind": "natural"}, "now_px": 417.4}
    assert designer.post("/height-rules/fixed", natural).json()["height_px"] == 417
    # however high or low a frame is, the rule can be had
    for now in (0, 1e6):
        assert designer.post("/height-rules/fixed", {**natural, "now_px": now}).status_code == 200
    assert designer.post("/width-rules/wide", {"rule": full}).status_code == 422
