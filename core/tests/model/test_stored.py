"""What was stored by an older version is lifted, what a newer one stored is refused, what this one
stores comes back."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from skypane import model
from skypane.model.stored import VERSION, TooNew, lifted, stored

json = st.recursive(
    st.none() | st.booleans() | st.integers(-9, 9) | st.text(max_size=5),
    lambda c: st.lists(c, max_size=3),
)


@given(
    st.dictionaries(st.text(max_size=5).filter(lambda k: k != "version"), json)
    | st.lists(json, max_size=4)
)
def test_what_is_stored_comes_back(value):
    if isinstance(value, dict) and set(value) == {"list"}:
        return  # no noun has this one field alone
    kept = stored(value)
    assert kept["version"] == VERSION and lifted("written", kept) == value


def test_a_site_without_heights_lives_again():
    assert model.Site.model_validate(
        lifted("site", {"heights": [], "densities": [1, *[2] * 10_000]})
    ) == model.Site(lists="densities")


def test_a_site_of_an_older_version_goes_on_to_offer_files_by_density():
    old = {"version": 3, "narrowest": 300}
    assert lifted("site", old) == {"narrowest": 300, "lists": "densities"}
    asked = lifted("asked", {**{"version": 3, "site": {}, "placement": {}}, "originals": []})
    assert asked["site"] == {"lists": "densities"}
    assert model.Site.model_validate(lifted("site", stored({}))).lists == "fitting"


def test_hairlines_and_impossible_ratios_become_what_can_be_read():
    old = {
        "name": "x",
        "treatments": {
            "A": {
                "crop": {"x": 1 - 1e-7, "y": 0, "w": 1e-7, "h": 1},
                "height": {"kind": "ratio", "w": 1e-300, "h": 1},
            },
            "B": {"height": {"kind": "ratio", "w": 2, "h": 1}},
        },
    }
    a = model.Placement.model_validate(lifted("placement", old)).parts[0].treatments["A"]
    assert (
        a.crop.w == 1e-4
        and a.height is not None
        and a.height.w / a.height.h == pytest.approx(0.001)
    )
    rect = {"x": 0.5, "y": 0.5, "w": 1e-9, "h": 0.1}
    for kind, data in (
        ("areas", [{"name": "K", "rect": rect}]),
        ("looks", {"3": {"focal": [0, 0], "areas": [{"name": "K", "rect": rect}]}}),
    ):
        found = lifted(kind, data)
        areas = found if kind == "areas" else found["3"]["areas"]
        assert model.Area.model_validate(areas[0]).rect.w == 1e-4
    asked = lifted(
        "asked",
        {
            "site": {"heights": []},
            "placement": old,
            "originals": [{"id": 1, "areas": [{"name": "K", "rect": rect}]}],
        },
    )
    assert (
        len(asked["site"]["heights"]) == 4
        and asked["originals"][0]["areas"][0]["rect"]["w"] == 1e-4
    )


def test_what_a_newer_version_stored_is_refused_with_a_sentence():
    with pytest.raises(TooNew, match="newer version"):
        lifted("site", {"version": VERSION + 1})


def test_a_pause_and_the_change_after_it_become_one_time():
    """What was stored goes on as it did: with a pause of 4 s and a change of 0.6 s slides changed
    every 4.6 s; what changes at once takes no time for it."""
    layout = {
        "D": {"pause_s": 4, "change_s": 0.6, "at_a_time": 1},
        "C": {"at_a_time": 2, "change": "slide"},
        "B": {"change": "none"},
        "A": {"captions": "none"},
    }
    old = {"version": 4, "name": "Views", "kind": "slides", "parts": [{}], "layout": layout}
    found = lifted("placement", old)["layout"]
    assert found == {
        "D": {"change_s": 0.6, "at_a_time": 1, "every_s": 4.6},
        "C": {"at_a_time": 2, "change": "slide", "every_s": 4.6},
        "B": {"change": "none", "every_s": 4},
        "A": {"captions": "none"},
    }
    asked = {"version": 4, "site": {}, "pages": [{"placements": [old]}], "originals": []}
    assert lifted("asked", asked)["pages"][0]["placements"][0]["layout"] == found
    model.Placement.model_validate(lifted("placement", old))


def test_what_was_said_to_be_a_drawing_is_one():
    known = {"name": "mark.svg", "areas": []}
    old = [{**known, "vector": True}, {**known, "vector": False}, known]
    new = [{**known, "medium": "drawing"}, known, known]
    for version in (2, 6):
        assert lifted("originals", {"version": version, "list": old}) == new
    asked = {"version": 6, "site": {}, "pages": [], "originals": old}
    assert lifted("asked", asked)["originals"] == new
