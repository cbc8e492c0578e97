"""Readings and saves."""

import pytest
from conftest import one_part, own, with_own

pytestmark = pytest.mark.django_db


def save(api, placement, revision=None, **changes):
    body = {
        "revision": revision or placement["revision"],
        "placement": {**placement["placement"], **changes},
        "looks": placement["looks"],
    }
    return api.put(f"/placements/{placement['id']}", body)


def test_a_reading_stores_nothing(designer, site, placement):
    draft = {"placement": {**placement["placement"], "name": "Other"}, "looks": placement["looks"]}
    reading = designer.post(f"/sites/{site['id']}/readings", draft).json()
    assert [s["letter"] for s in reading["parts"]["0"]["spans"]] == list("ABCD")
    assert (
        "other" in reading["code"]["markup_text"] and "/api/originals/" in reading["pane"]["markup"]
    )
    assert designer.get(f"/placements/{placement['id']}").json() == placement


def test_a_reading_follows_a_focal_point_and_a_site_under_the_hand(
    designer, site, placement, original
):
    draft = {
        "placement": placement["placement"],
        "looks": {original["id"]: {"focal": [0.1, 0.5], "areas": []}},
    }
    left = designer.post(f"/sites/{site['id']}/readings", draft).json()
    draft["looks"][original["id"]]["focal"] = [0.9, 0.5]
    draft["site"] = {**site["plan"], "breakpoints": [700, 1023, 1599]}
    right = designer.post(f"/sites/{site['id']}/readings", draft).json()
    assert (
        left["parts"]["0"]["spans"][0]["x0"]["points"][0][1] == 0
        and right["parts"]["0"]["spans"][0]["x0"]["points"][0][1] > 0.3
    )
    assert right["parts"]["0"]["spans"][0]["last"] == 700


def test_a_save_raises_the_revision_and_keeps_focal_points(designer, placement, original, site):
    placement["looks"][str(original["id"])]["focal"] = [0.25, 0.75]
    saved = save(designer, placement, lead=False).json()
    assert saved["revision"] == placement["revision"] + 1 and saved["placement"]["lead"] is False
    assert designer.get(f"/sites/{site['id']}/originals").json()[0]["focal"] == [0.25, 0.75]


def test_the_later_save_is_told_and_nothing_overwritten(designer, placement):
    assert save(designer, placement, name="Mine").status_code == 200
    answer = save(designer, placement, name="Late")
    assert answer.status_code == 409
    assert answer.json()["theirs"]["placement"]["name"] == "Mine"
    assert designer.get(f"/placements/{placement['id']}").json()["placement"]["name"] == "Mine"
    assert (
        save(
            designer, placement, revision=answer.json()["theirs"]["revision"], name="Late"
        ).status_code
        == 200
    )


@pytest.mark.parametrize(
    ("treatment", "field", "said"),
    [
        ({"width": {"kind": "fixed", "width_px": 0}}, "width", "at least 0.0"),
        ({"width": {"kind": "fixed", "width_px": -5}}, "width", "at least 0.0"),
        ({"height": {"kind": "ratio", "w": 0, "h": 1}}, "height", "at least 0.0"),
        (
            {"height": {"kind": "fixed", "height_px": 100, "least_px": 300, "greatest_px": 200}},
            "height",
            "larger than the greatest",
        ),
        ({"width": {"kind": "columns", "columns": 8, "gutter_px": 300}}, "width", "no width at"),
        ({"width": {"kind": "elastic"}}, "width", ""),
        ({"original": 999999}, "", "not in this site"),
        ({"aim": {"kind": "fixed", "x": 2, "y": 0}}, "aim", "at most 1"),
        ({"fit": "stretch"}, "fit", ""),
        ({"background": "red"}, "background", ""),
    ],
)
def test_a_treatment_that_cannot_be_is_refused_at_its_field(
    designer, placement, treatment, field, said
):
    treatments = {**own(placement["placement"]), "B": treatment}
    answer = save(designer, placement, **with_own(placement["placement"], treatments=treatments))
    problem = answer.json()
    assert answer.status_code == 422 and said in problem["detail"]
    assert any(field in e["field"] for e in problem["errors"])
    assert designer.get(f"/placements/{placement['id']}").json() == placement


def test_areas_are_kept_in_order_and_their_names_differ(designer, placement, original):
    rect = {"x": 0.1, "y": 0.1, "w": 0.2, "h": 0.2}
    look = placement["looks"][str(original["id"])]
    look["areas"] = [
        {"name": "Boat", "rect": rect, "least_px": 40},
        {"name": "Sky", "rect": rect, "kind": "quiet"},
    ]
    saved = save(designer, placement).json()
    assert [a["name"] for a in saved["looks"][str(original["id"])]["areas"]] == ["Boat", "Sky"]
    look["areas"].append({"name": "Boat", "rect": rect})
    answer = save(designer, {**saved, "looks": placement["looks"]})
    assert answer.status_code == 422 and "Two areas are called Boat" in answer.json()["detail"]
    look["areas"] = [{"name": "Out", "rect": {"x": 0.9, "y": 0, "w": 0.5, "h": 0.5}}]
    assert (
        "reaches beyond the picture"
        in save(designer, {**saved, "looks": placement["looks"]}).json()["detail"]
    )


def test_advice_proposes_other_originals_of_the_site(designer, site, placement, original):
    from conftest import picture

    other = designer.bring(site["id"], picture(400, 800, seed=5), "tall.jpg").json()
    wide = [{"name": "Row", "rect": {"x": 0.02, "y": 0.4, "w": 0.96, "h": 0.2}}]
    small = [{"name": "Mast", "rect": {"x": 0.4, "y": 0.4, "w": 0.2, "h": 0.2}}]
    made = one_part("Tall", {"D": {"original": other["id"]}})
    page = designer.get(f"/sites/{site['id']}").json()["pages"][0]["id"]
    second = designer.post(f"/pages/{page}/placements", {"placement": made}).json()
    looks = {str(other["id"]): {"focal": [0.5, 0.5], "areas": small}}
    assert (
        designer.put(
            f"/placements/{second['id']}",
            {"revision": second["revision"], "placement": made, "looks": looks},
        ).status_code
        == 200
    )
    draft = {
        "placement": placement["placement"],
        "looks": {str(original["id"]): {"focal": [0.5, 0.5], "areas": wide}},
    }

    def proposed(**more):
        reading = designer.post(f"/sites/{site['id']}/readings", {**draft, **more}).json()
        advice = reading["parts"]["0"]["advice"]
        a = next(x for x in advice if x["span"] == "A")
        assert a["failing"] == ["Row"]
        return [
            s["treatment"]["original"] for s in a["steps"] if s["kind"] == "original" and s["works"]
        ]

    assert proposed() == []  # four boats are not offered a tern
    assert proposed(placement_id=placement["id"]) == [other["id"]]  # used on the same page
    tags = {"ids": [original["id"], other["id"]], "add_tags": ["boats"]}
    assert designer.patch(f"/sites/{site['id']}/originals", tags).status_code == 200
    assert proposed() == [other["id"]]  # a tag in common


def test_another_site_s_original_cannot_be_taken(designer, stranger, placement):
    theirs = stranger.post("/sites", {"name": "Other"}).json()
    from conftest import picture

    foreign = stranger.bring(theirs["id"], picture(seed=3)).json()
    assert (
        save(designer, placement, **one_part("x", {"D": {"original": foreign["id"]}})).status_code
        == 422
    )


def test_the_list_shows_strips_and_findings(designer, site, placement):
    (row,) = designer.get(f"/sites/{site['id']}/placements").json()
    assert [f["letter"] for f in row["strip"]] == list("ABCD") and row["page"] == "Home"
    assert [f["rule"] for f in row["findings"]] == ["no-area", "no-alt"]
    assert row["strip"][0]["box_ratio"] == pytest.approx(1)
    assert row["current"]


def test_a_list_is_there_at_once_as_it_was_last_seen(designer, site, placement, monkeypatch):
    """What has not changed is not worked out again, over all processes; what has shows as it was
    until it is; what was never seen says nothing."""
    path = f"/sites/{site['id']}/placements"
    (never,) = designer.get(f"{path}?as_remembered=true").json()
    assert (never["current"], never["strip"], never["findings"]) == (False, [], [])
    assert never["name"] == "Lighthouse"
    (seen,) = designer.get(path).json()

    def worked_out(*asked):
        raise AssertionError("worked out again")

    monkeypatch.setattr("placements.glimpses.plan", worked_out)
    assert designer.get(path).json() == [seen]
    assert designer.get(f"{path}?as_remembered=true").json() == [seen]
    monkeypatch.undo()
    tall = {
        "D": {"original": seen_original(placement), "height": {"kind": "ratio", "w": 1, "h": 4}}
    }
    assert save(designer, placement, **one_part("Lighthouse", tall)).status_code == 200
    (stale,) = designer.get(f"{path}?as_remembered=true").json()
    assert not stale["current"] and stale["strip"] == seen["strip"]
    (fresh,) = designer.get(path).json()
    assert fresh["current"] and fresh["strip"][3]["box_ratio"] == pytest.approx(0.625)
    assert designer.get(f"{path}?as_remembered=true").json() == [fresh]


def test_another_mark_on_an_original_is_seen_in_the_list(designer, site, placement):
    """A glimpse is worked out of the originals too: their areas, their alt texts, their files."""
    path = f"/sites/{site['id']}/placements"
    designer.get(path)
    original = seen_original(placement)
    assert designer.patch(f"/originals/{original}", {"alt": "A lighthouse"}).status_code == 200
    (row,) = designer.get(f"{path}?as_remembered=true").json()
    assert not row["current"]
    (row,) = designer.get(path).json()
    assert "no-alt" not in {f["rule"] for f in row["findings"]}


def seen_original(placement):
    return placement["placement"]["parts"][0]["treatments"]["D"]["original"]


def test_all_pictures_of_a_draft_are_cropped_to_a_ratio(designer, site, placement, original):
    """1:1 of 800 × 500 px is 500/800 of its width; where that cannot be asked for, it is said."""
    crops, draft = f"/sites/{site['id']}/crops", {"placement": placement["placement"]}
    answer = designer.post(crops, {**draft, "chosen": "D", "ratio": 1})
    assert answer.status_code == 200
    found = answer.json()
    assert found["why_not"] == {} and set(found["crops"]) == {"0"}
    square = found["crops"]["0"]
    sides = square["w"] * original["width_px"], square["h"] * original["height_px"]
    assert sides[0] == pytest.approx(sides[1])
    assert max(square["w"], square["h"]) == pytest.approx(1)
    for asked, field, said in (
        ({"chosen": "Z", "ratio": 1}, "chosen", "no span Z"),
        ({"chosen": "D", "ratio": 0}, "ratio", "at least 0.05"),
        ({"chosen": "D", "ratio": "wide"}, "ratio", "number"),
        ({"ratio": 1}, "chosen", "missing"),
    ):
        refused = designer.post(crops, {**draft, **asked})
        (error,) = refused.json()["errors"]
        assert refused.status_code == 422 and error["field"].endswith(field), error
        assert said in error["sentence"], error


def test_an_empty_placement_has_room_for_a_picture(designer, page, site):
    made = designer.post(f"/pages/{page['id']}/placements", {"placement": {"name": "Empty"}}).json()
    reading = designer.post(
        f"/sites/{site['id']}/readings", {"placement": made["placement"]}
    ).json()
    assert [f["rule"] for f in reading["findings"]] == ["no-original"] and reading["files"] == []


def test_a_placement_is_duplicated_with_its_rules_and_only_the_original_exchanged(
    designer, site, page, placement, original
):
    from conftest import picture

    other = designer.bring(site["id"], picture(seed=9), "other.jpg").json()
    crop = {"crop": {"x": 0.1, "y": 0.1, "w": 0.5, "h": 0.5}, "keeps": ["Mast"]}
    rules = {**own(placement["placement"]), "B": crop}
    saved = save(designer, placement, **with_own(placement["placement"], treatments=rules)).json()
    asked = {"name": "Second", "original": other["id"]}
    made = designer.post(f"/placements/{placement['id']}/copies", asked)
    assert made.status_code == 201
    given = {k: {f: v for f, v in t.items() if v} for k, t in own(made.json()["placement"]).items()}
    assert given["D"]["original"] == other["id"] and given["D"]["height"]["w"] == 2
    assert given["B"] == {} and given["A"]["height"]["h"] == 1
    same = designer.post(f"/placements/{placement['id']}/copies", {"name": "Third"}).json()
    assert own(same["placement"]) == own(saved["placement"])
    # right after the one that they are made from
    rows = designer.get(f"/sites/{site['id']}/placements").json()
    assert [r["name"] for r in rows] == ["Lighthouse", "Third", "Second"]
    foreign = designer.post(f"/placements/{placement['id']}/copies", {**asked, "original": 10**9})
    assert foreign.status_code == 422 and "not in this site" in foreign.json()["detail"]


def test_a_list_comes_in_parts_that_together_are_all_of_it(designer, site, page, placement):
    """In the order of pages; each part as quickly as the whole of a small site."""
    other = designer.post(f"/sites/{site['id']}/pages", {"title": "Visit"}).json()
    for i in range(5):
        body = {**placement["placement"], "name": f"Row {i}", "lead": False}
        of = (page, other)[i % 2]["id"]
        assert designer.post(f"/pages/{of}/placements", {"placement": body}).status_code == 201
    rows = f"/sites/{site['id']}/placements"
    whole = designer.get(rows).json()
    assert len(whole) == 6 and all(r["current"] for r in whole)
    for remembered in ("true", "false"):
        parts = [
            designer.get(f"{rows}?as_remembered={remembered}&skip={skip}&most=2").json()
            for skip in (0, 2, 4, 6)
        ]
        assert [len(p) for p in parts] == [2, 2, 2, 0]
        assert [row for part in parts for row in part] == whole
    assert designer.get(f"{rows}?most=0").status_code == 422
    assert designer.get(f"{rows}?skip=-1").status_code == 422
