"""Changes that bring others with them: each against what the spans show before and after."""

import pytest
from skypane.edits import (
    AreaRenamed,
    InAllSpans,
    OnlyThere,
    OriginalGiven,
    RoleGiven,
    VariantSet,
    edited,
)
from skypane.errors import InvalidPlan
from skypane.geometry import WHOLE, Rect
from skypane.layouts import begun
from skypane.model import NamedFrame, Part, RatioHeight, Site, Treatment, picture
from skypane.treatments import handed_of_kind, resolve

SITE = Site()
HALF = Rect(x=0, y=0, w=0.5, h=1)


def held(placement, part=0, site=SITE):
    return {letter: r.effective for letter, r in resolve(site, placement)[part].items()}


def placed(**treatments):
    return picture(name="Quay", treatments=treatments)


def test_the_first_picture_of_a_part_is_for_every_width_and_the_next_for_its_span():
    bare = picture("Quay", {})
    first = edited(SITE, bare, OriginalGiven(part=0, letter="A", original=7), {})
    assert first.parts[0].treatments == {"D": Treatment(original=7)}
    then = edited(SITE, first, OriginalGiven(part=0, letter="A", original=8), {})
    assert {x: e.original for x, e in held(then).items()} == {"A": 8, "B": 7, "C": 7, "D": 7}


def test_the_first_picture_of_a_logo_is_its_first_cut():
    bare = begun("logo", SITE, picture("Quay", {}))
    first = edited(SITE, bare, OriginalGiven(part=0, letter="B", original=7), {})
    assert first.layout["D"]["cuts"] == [{"original": 7, "lettering_percent": None}]
    then = edited(SITE, first, OriginalGiven(part=0, letter="B", original=8), {})
    assert then.layout == first.layout, "what is another cut is said by hand"


def test_what_lies_on_a_picture_stands_before_variants():
    one = picture("Quay", {"D": Treatment(original=1)})
    usual = one.parts[0].model_copy(update={"key": "1"})
    dark = Part(of="1", when=("dark",), treatments={"D": Treatment(original=2)})
    banner = one.model_copy(update={"kind": "banner", "parts": (usual, dark)})
    made = edited(SITE, banner, RoleGiven(role="mark", letter="A", original=3), {})
    assert [p.role for p in made.parts] == [None, "mark", None]
    assert made.parts[1].treatments == {"D": Treatment(original=3)}
    again = edited(SITE, made, RoleGiven(role="mark", letter="A", original=4), {})
    assert len(again.parts) == 3 and again.parts[1].treatments["A"].original == 4


def test_a_name_is_followed_where_that_original_shows_and_nowhere_else():
    other = Treatment(original=8, keeps=("Mast",))
    here = placed(D=Treatment(original=7, keeps=("Mast", "Bell")), A=other)
    made = edited(SITE, here, AreaRenamed(original=7, before="Mast", after="Light"), {})
    assert made.parts[0].treatments["D"].keeps == ("Light", "Bell")
    assert made.parts[0].treatments["A"] == other


# -- what stands in for a part --


def variant(part=0, when=("dark",), letter="D", gone=(), **values):
    own = Treatment(**values)
    return VariantSet(part=part, when=when, letter=letter, treatment=own, gone=gone)


def test_what_shows_under_conditions_is_one_part_after_all_others():
    two = picture("Quay", {"D": Treatment(original=1)})
    two = two.model_copy(update={"parts": (*two.parts, two.parts[0])})
    made = edited(SITE, two, variant(1, original=9), {})
    again = edited(SITE, made, variant(1, letter="A", original=8), {})
    assert [(p.of, p.when) for p in again.parts[2:]] == [(again.parts[1].key, ("dark",))]
    assert again.parts[2].treatments == {"D": Treatment(original=9), "A": Treatment(original=8)}
    third = edited(SITE, again, variant(0, ("portrait", "dark"), original=7), {})
    keys = [p.key for p in third.parts[:2]]
    assert len(set(keys)) == 2 and third.parts[3].of == keys[0]
    assert third.parts[3].when == ("dark", "portrait")


def test_one_that_shows_the_usual_picture_everywhere_goes():
    one = placed(D=Treatment(original=1))
    made = edited(SITE, one, variant(letter="B", original=9, show="picture"), {})
    usual = edited(SITE, made, variant(letter="A", show="usual", gone=("original",)), {})
    assert usual.parts[1].treatments["A"] == Treatment(show="usual")
    back = edited(SITE, usual, variant(letter="B", gone=("show", "original")), {})
    assert len(back.parts) == 1 and back.parts[0].treatments == one.parts[0].treatments
    assert len(edited(SITE, one, variant(show="usual"), {}).parts) == 1


# -- one span or all of them --

RED, WHITE = "#aa0000", "#ffffff"


def test_what_is_given_to_all_spans_holds_in_all_of_them():
    """Also where all parts, or the named frame, set it otherwise in a span."""
    frame = NamedFrame(id="wide", name="Wide", spans={"B": {"height": RatioHeight(w=2, h=1)}})
    site = SITE.model_copy(update={"frames": (frame,)})
    square = RatioHeight(w=1, h=1)
    here = placed(A=Treatment(background=WHITE), C=Treatment(background=RED, height=square))
    common = {"A": Treatment(background=WHITE)}
    here = here.model_copy(update={"common": common, "frame": "wide"})
    step = {"background": RED, "height": square}
    made = edited(site, here, InAllSpans(part=0, letter="C", treatment=step), {})
    assert {(e.background, e.height) for e in held(made, site=site).values()} == {(RED, square)}
    assert made.common == common


def test_a_crop_of_another_original_goes_where_all_show_the_same():
    here = placed(A=Treatment(original=8, crop=HALF), C=Treatment(original=7))
    made = edited(SITE, here, InAllSpans(part=0, letter="C", treatment={"original": 7}), {})
    assert {(e.original, e.crop) for e in held(made).values()} == {(7, None)}


@pytest.mark.parametrize(
    "step",
    [
        {"background": RED},
        {"original": 8},
        {"crop": HALF},
        {"keeps": ("Bell",)},
        {"height": RatioHeight(w=1, h=3), "fit": "contain"},
    ],
    ids=lambda s: next(iter(s)),
)
@pytest.mark.parametrize("below", [{}, {"crop": HALF, "keeps": ("Mast",)}, {"background": WHITE}])
def test_what_is_kept_to_one_span_leaves_every_other_one_as_it_was(step, below):
    before = placed(D=Treatment(original=7), B=Treatment(**below))
    own = before.parts[0].treatments
    after = placed(**{**own, "C": Treatment(**step)})
    names = {7: ("Mast", "Bell"), 8: ("Mast",)}
    made = edited(SITE, after, OnlyThere(part=0, letter="C", treatment=step, before=before), names)

    def shown(e):
        """A crop of all is none, and all areas are as good as their names."""
        keeps = names[e.original] if e.keeps is None else e.keeps
        return {**vars(e), "crop": e.crop or WHOLE, "keeps": keeps}

    then, now = held(before), held(made)
    assert [shown(now[x]) for x in "ABD"] == [shown(then[x]) for x in "ABD"]
    assert all(getattr(now["C"], f) == v for f, v in step.items())


def test_values_of_the_kind_and_of_all_parts_are_kept_to_one_span_too():
    before = begun("grid", SITE, picture("Quay", {"D": Treatment(original=7)}))
    rows = {**before.layout, "C": {**before.layout.get("C", {}), "columns": 5}}
    common = {**before.common, "C": Treatment(background=RED)}
    after = before.model_copy(update={"layout": rows, "common": common})
    step = {"part": 0, "letter": "C", "layout": {"columns": 5}, "common": {"background": RED}}
    made = edited(SITE, after, OnlyThere(**step, before=before), {})
    then, now = handed_of_kind(SITE, before), handed_of_kind(SITE, made)
    assert now["C"].values["columns"] == 5
    assert now["B"].values["columns"] == then["B"].values["columns"]
    assert [held(made)[x].background for x in "BC"] == [held(before)["B"].background, RED]
    everywhere = edited(SITE, after, InAllSpans(**step), {})
    assert {v.values["columns"] for v in handed_of_kind(SITE, everywhere).values()} == {5}


@pytest.mark.parametrize(
    "edit",
    [
        OriginalGiven(part=3, letter="A", original=1),
        OriginalGiven(part=0, letter="H", original=1),
        OnlyThere(part=1, letter="A", before=placed()),
        variant(4),
    ],
)
def test_an_edit_of_what_is_not_there_says_so(edit):
    with pytest.raises(InvalidPlan, match="There is no"):
        edited(SITE, placed(), edit, {})
