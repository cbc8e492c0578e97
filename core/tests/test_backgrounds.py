"""What lies behind a picture."""

import json

import pytest
from pydantic import ValidationError
from skypane import model as m
from skypane.errors import sentence_of
from skypane.handover import asked_for, blueprint
from skypane.layouts import begun
from skypane.shown.plan import plan

SITE = m.Site()
ORIGINALS = {
    1: m.Original(id=1, name="quay.jpg", width_px=4000, height_px=3000, sha256="1", alt=""),
    2: m.Original(
        id=2, name="mark.png", width_px=900, height_px=300, sha256="2", alt="", alpha=True
    ),
}


def ground(placement: m.Placement) -> dict[str, str]:
    found = plan(SITE, placement, ORIGINALS)
    return {p.span.letter: p.effective.background for p in found.parts[0].spans}


def css_of(placement: m.Placement) -> str:
    return blueprint(asked_for(SITE, placement, ORIGINALS.values())).texts["picture.css"]


def test_what_can_be_seen_through_lies_on_nothing():
    """Nobody has chosen a colour for it: a logo that stood on a grey would be wrong on every page
    that is not grey. What fills its frame keeps the colour that shows until it is there."""
    for kind in ("picture", "logo", "grid", "slides", "beside"):
        of = {
            i: m.Placement(name="A", parts=(m.Part(treatments={"D": m.Treatment(original=i)}),))
            for i in ORIGINALS
        }
        seen_through = begun(kind, SITE, of[2])
        assert set(ground(seen_through).values()) == {"none"}, kind
        assert "#d5d9da" not in css_of(seen_through), kind
        assert set(ground(begun(kind, SITE, of[1])).values()) == {"#d5d9da"}, kind


def test_a_colour_that_was_chosen_stays_and_a_row_is_told_once_that_it_has_none():
    through = m.picture("A", {"D": m.Treatment(original=2), "B": m.Treatment(background="#123456")})
    assert ground(through) == {"D": "none", "C": "none", "B": "#123456", "A": "#123456"}
    parts = tuple(m.Part(treatments={"D": m.Treatment(original=i)}) for i in (1, 2, 1))
    row = begun("grid", SITE, m.Placement(name="Row", parts=parts))
    common = {"D": row.common["D"].model_copy(update={"background": "none"})}
    assert "#d5d9da" not in css_of(row.model_copy(update={"common": common}))


def test_what_shows_only_its_colour_keeps_one():
    alone = m.picture("A", {"D": m.Treatment(original=2, show="colour")})
    assert set(ground(alone).values()) == {"#d5d9da"}


def test_words_are_read_on_a_page_that_is_white_where_nothing_lies_under_them():
    found = plan(SITE, m.picture("A", {"D": m.Treatment(original=2)}), ORIGINALS)
    assert found.parts[0].spans[0].ground == "#ffffff"


@pytest.mark.parametrize("said", ["", "None", "red", "#fff", "transparent", "#12345g", "none;"])
def test_anything_else_is_refused_with_a_sentence(said):
    with pytest.raises(ValidationError) as refused:
        m.Treatment.model_validate_json(json.dumps({"background": said}))
    assert "six digits, as #d5d9da, or none" in sentence_of(refused.value)
