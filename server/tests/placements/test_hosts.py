"""What a host that takes no markup is given of a draft; and what its rules would hit."""

import pytest
from conftest import one_part
from originals.intake import look_for_tiny
from originals.models import Original

PAGE = "<section class=hero><p>Boats</p></section><section class=hero></section>"


def hosted(designer, site, **host):
    plan = {**site["plan"], "hand_over": {**site["plan"]["hand_over"], "host": host}}
    body = {"name": site["name"], "revision": site["revision"], "plan": plan}
    return designer.put(f"/sites/{site['id']}", body)


def for_host(designer, site, placement, **more):
    body = {"placement": {**placement["placement"], **more}, "placement_id": placement["id"]}
    return designer.post(f"/sites/{site['id']}/readings/host", body)


def test_a_sheet_has_a_column_for_each_view(designer, site, placement):
    views = [{"name": "Small", "to_px": 700}, {"name": "Large"}]
    assert hosted(designer, site, takes="views", views=views).status_code == 200
    told = for_host(designer, site, placement).json()
    (table,) = told["tables"]
    assert table["views"] == ["Small, 320 to 700 px", "Large, 701 to 2560 px"]
    rows = {line["label"]: line["cells"] for line in table["lines"]}
    assert rows["Order on the page"] == ["1", "1"] and rows["File"][1].endswith(".jpg")
    assert told["page"].startswith("<!DOCTYPE html>") and told["css"] == []
    assert any("list of sizes" in lack["sentence"] for lack in told["lacks"])


def test_rules_want_a_selector_and_say_so(designer, site, placement):
    hosted(designer, site, takes="rules")
    told = for_host(designer, site, placement).json()
    assert told["css"] == [] and "selector" in told["why_not"]
    told = for_host(designer, site, placement, target=".hero").json()
    assert told["why_not"] == "" and ".hero::before {" in told["css_text"]


def test_a_host_that_takes_markup_is_given_nothing_else(designer, site, placement):
    told = for_host(designer, site, placement).json()
    assert (told["takes"], told["tables"], told["lacks"]) == ("markup", [], [])


@pytest.mark.parametrize(
    "host",
    [
        {"takes": "pigeons"},
        {"takes": "views", "views": []},
        {"takes": "views", "views": [{"name": "One", "to_px": 700}]},
        {
            "takes": "views",
            "views": [{"name": "A", "to_px": 900}, {"name": "B", "to_px": 800}, {"name": "C"}],
        },
    ],
)
def test_hosts_that_are_none_are_refused_with_a_sentence(designer, site, host):
    answer = hosted(designer, site, **host)
    assert answer.status_code == 422 and answer.json()["errors"]


def test_a_selector_that_is_none_is_refused_where_it_is_typed(designer, site, placement):
    answer = for_host(designer, site, placement, target=".a::before")
    assert answer.status_code == 422
    assert "two colons" in answer.content.decode()


def test_what_rules_hit_is_told(designer, site):
    told = designer.post(f"/sites/{site['id']}/hits", {"page": PAGE, "selector": ".hero"}).json()
    assert told["n"] == 2 and told["first"][0]["words"] == "Boats"
    answer = designer.post(f"/sites/{site['id']}/hits", {"page": PAGE, "selector": "> {"})
    assert answer.status_code == 422 and "no selector" in answer.json()["detail"]


def test_strangers_are_told_nothing(stranger, site, placement):
    assert for_host(stranger, site, placement).status_code == 404
    body = {"page": PAGE, "selector": ".hero"}
    assert stranger.post(f"/sites/{site['id']}/hits", body).status_code == 404


# -- until a picture is there ---------------------------------------------------------------


def reading(designer, site, placement, **more):
    body = {"placement": {**placement["placement"], **more}, "placement_id": placement["id"]}
    return designer.post(f"/sites/{site['id']}/readings", body)


def test_an_original_brings_its_few_px_along(designer, site, placement):
    (row,) = Original.objects.filter(site=site["id"])
    assert row.as_noun().tiny.height_px > 1
    told = reading(designer, site, placement, blurred=True).json()["code"]
    assert 0 < told["behind"]["most_bytes"] <= 600 and told["behind"]["without"] == []
    assert "data:image/png;base64," in told["css_text"]


def test_one_that_came_before_there_were_any_is_looked_at_when_they_are_wanted(
    designer, site, placement
):
    Original.objects.filter(site=site["id"]).update(tiny=None)
    assert reading(designer, site, placement).json()["code"]["behind"] is None
    assert Original.objects.get(site=site["id"]).tiny is None
    told = reading(designer, site, placement, blurred=True).json()["code"]
    assert told["behind"]["without"] == []
    assert Original.objects.get(site=site["id"]).tiny


def test_one_whose_bytes_are_lost_has_none(designer, site, placement):
    row = Original.objects.get(site=site["id"])
    Original.objects.filter(id=row.id).update(tiny=None, sha256="0" * 64)
    look_for_tiny(row.site, [row.id])
    assert Original.objects.get(id=row.id).tiny is None


def test_what_shows_instead_has_to_be_of_the_site(designer, site, placement):
    answer = reading(designer, site, placement, substitute=999_999)
    assert answer.status_code == 422 and "Choose another" in answer.json()["detail"]
    (row,) = Original.objects.filter(site=site["id"])
    told = reading(designer, site, placement, substitute=row.id).json()
    assert 'data-instead="images/' in told["code"]["markup_text"]
    assert [s["name"] for s in told["code"]["scripts"]] == ["substitute.js"]
    assert f"/api/originals/{row.id}/preview" in told["pane"]["markup"].split("data-instead")[1]


def test_it_is_used_and_cannot_be_thrown_away_unseen(designer, site, page, placement):
    (row,) = Original.objects.filter(site=site["id"])
    made = {**one_part("Lantern", {"D": {"show": "colour"}}), "substitute": row.id}
    designer.post(f"/pages/{page['id']}/placements", {"placement": made})
    told = designer.get(f"/sites/{site['id']}/originals").json()
    (mine,) = [o for o in told if o["id"] == row.id]
    assert any("Lantern, instead" in use for use in mine["used_in"]), mine
