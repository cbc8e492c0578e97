"""Findings as a designer counts: one thing to do is one finding."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from skypane import model as m
from skypane.findings.rule import Matter, plain, put_together, where_of
from skypane.reading import read

SITE = m.Site()


@given(st.lists(st.tuples(st.integers(320, 2560), st.integers(0, 40)), min_size=1, max_size=9))
def test_widths_are_told_once_and_in_order(found):
    """Side by side they are one run; more runs than a sentence bears are counted."""
    runs = [(a, a + n) for a, n in found]
    said = where_of(runs)
    held = {w for a, b in runs for w in range(a, b + 1)}
    n = sum(w - 1 not in held for w in held)
    assert str(min(held)) in said and str(max(held)) in said
    if n > 3:
        alone = len(held) == n
        assert (f"at {n} widths from" if alone else f"in {n} runs of widths") in said
    else:
        assert said.count("from ") + said.count("at ") == n


def test_matters_about_one_thing_are_one_and_the_worst_is_told():
    matters = [
        Matter("", "A", ((320, 599),), 0.2, "{what} fail {where}: 2.", "The text"),
        Matter("", "B", ((600, 700),), 0.7, "{what} fail {where}: 7.", "The heading"),
        Matter("x", "B", ((600, 600),), 0.1, "Other {where}."),
    ]
    assert list(put_together([*matters, (("D",), "Plain."), (("C",), "Plain.")])) == [
        (("A", "B"), ((320, 700),), "The text and the heading fail from 320 to 700 px: 7."),
        (("B",), ((600, 600),), "Other at 600 px."),
        (("D", "C"), (), "Plain."),
    ]


def test_what_a_name_holds_is_never_filled_in():
    area = m.Area(name="{where} {what} {0}", rect=m.Rect(x=0.9, y=0.1, w=0.1, h=0.1))
    boat = m.Original(
        id=1, name="b.jpg", width_px=4000, height_px=2000, sha256="1", alt="", areas=(area,)
    )
    far = m.Area(name="Far", rect=m.Rect(x=0, y=0.1, w=0.1, h=0.1))
    both = boat.model_copy(update={"areas": (far, area)})
    tall = m.Treatment(original=1, height=m.RatioHeight(w=1, h=2))
    found = read(SITE, m.picture("A", {"D": tall}), {1: both}).findings
    (said,) = [f.sentence for f in found if f.rule == "area"]
    assert said.startswith(plain(area.name) + " is lost from 320 to 2560 px")


def test_a_full_width_picture_of_2400_px_is_one_matter():
    """Not one for every span and density; and none where nobody of the audience sees it."""
    sea = m.Original(id=1, name="sea.jpg", width_px=2400, height_px=1600, sha256="1", alt="")
    full = m.picture("Sea", {"D": m.Treatment(original=1)})
    (found,) = [f for f in read(SITE, full, {1: sea}).findings if f.rule == "soft"]
    assert "2880 px are needed at 1440 px and 2x, 2400 are there, 480 too few" in found.sentence
    phones = SITE.model_copy(
        update={"audience": (m.Viewers(width=390, height=844, density=3, weight=1),)}
    )
    assert "soft" not in {f.rule for f in read(phones, full, {1: sea}).findings}


def test_where_the_crop_is_small_no_larger_original_is_asked_for():
    sea = m.Original(id=1, name="sea.jpg", width_px=6000, height_px=4000, sha256="1", alt="")
    tight = m.Treatment(original=1, crop=m.Rect(x=0.4, y=0.4, w=0.2, h=0.2))
    found = read(SITE, m.picture("Sea", {"D": tight}), {1: sea}).findings
    (soft,) = [f for f in found if f.rule.startswith("soft")]
    assert (soft.rule, soft.step) == ("soft-crop", "aim")
    assert soft.sentence.startswith("The crop of sea.jpg is soft") and "larger" not in soft.remedy


@pytest.mark.parametrize(("budget", "found"), [(200_000, 0), (100_000, 1)])
def test_a_weight_over_its_budget_is_found_with_what_it_is_over(budget, found):
    """By the viewports of the audience, once files are made."""
    sea = m.Original(id=1, name="sea.jpg", width_px=6000, height_px=4000, sha256="1", alt="")
    site = m.Site(budget_bytes=budget)
    full = m.picture("Sea", {"D": m.Treatment(original=1)})
    made = read(site, full, {1: sea}, made_bytes=lambda keys: dict.fromkeys(keys, 150_000))
    told = [f for f in made.findings if f.rule == "over-budget"]
    assert len(told) == found
    if told:
        assert "50 kB over 100 kB" in told[0].sentence
    assert "over-budget" not in {f.rule for f in read(site, full, {1: sea}).findings}
