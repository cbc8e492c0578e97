"""Values handed down from wider spans to narrower ones, and what has to be set so that they are
(rules §3)."""

from hypothesis import given
from hypothesis import strategies as st
from skypane.handing_down import Layer, Origin, handed_down, to_set

LETTERS = "ABCD"
ALL_OF_IT = "all of it"


def values():
    """What somebody sets in some spans."""
    own = st.fixed_dictionaries(
        {},
        optional={
            "height": st.integers(1, 2),
            "fit": st.sampled_from(["cover", "contain"]),
            "original": st.integers(1, 2),
            "crop": st.sampled_from(["left", "right", ALL_OF_IT]),
        },
    )
    return st.dictionaries(st.sampled_from(LETTERS), own)


def test_what_is_set_holds_in_every_narrower_span_until_one_sets_it_otherwise():
    held = handed_down(
        LETTERS, Layer("part", {"D": {"height": 1, "fit": "cover"}, "B": {"fit": 2}})
    )
    assert [held[x].values for x in "DCBA"] == [
        {"height": 1, "fit": "cover"},
        {"height": 1, "fit": "cover"},
        {"height": 1, "fit": 2},
        {"height": 1, "fit": 2},
    ]
    assert held["A"].origin == {"height": Origin("D", "part"), "fit": Origin("B", "part")}
    assert held["C"] is held["D"], "a span that sets nothing is the wider one"


def test_of_two_that_set_a_value_in_one_span_the_upper_one_holds():
    lower, upper = Layer("frame", {"C": {"height": 1}}), Layer("part", {"D": {"height": 2}})
    held = handed_down(LETTERS, lower, upper)
    assert held["D"].values == {"height": 2} and held["C"].values == {"height": 1}
    assert held["A"].origin["height"] == Origin("C", "frame")
    held = handed_down(LETTERS, lower, Layer("part", {"C": {"height": 2}}))
    assert held["B"].values == {"height": 2} and held["B"].set_in("C") == {"height"}


def test_a_crop_is_not_handed_down_past_another_original():
    said = {"D": {"original": 1, "crop": "left"}, "C": {"original": 2}, "A": {"original": 2}}
    held = handed_down(LETTERS, Layer("part", said))
    assert held["D"].values["crop"] == "left"
    assert all("crop" not in held[x].values and "crop" not in held[x].origin for x in "CBA")


@given(values(), values())
def test_what_has_to_be_set_so_that_it_holds_makes_it_hold(below, own):
    """There and back: over the same below, and over other spans whose values it takes along."""
    lower = handed_down(LETTERS, Layer("frame", below), Layer("part", own))
    widest_first = {x: lower[x] for x in "DCBA"}
    back = to_set(widest_first, below, taken_back=lambda field, values: ALL_OF_IT)
    again = handed_down(LETTERS, Layer("frame", below), Layer("part", back))
    for letter in LETTERS:
        mine, theirs = lower[letter].values, again[letter].values
        assert {**mine, "crop": mine.get("crop", ALL_OF_IT)} == {
            **theirs,
            "crop": theirs.get("crop", ALL_OF_IT),
        }
    redundant = [
        (letter, field)
        for letter, set_ in back.items()
        for field in set_
        if field not in below.get(letter, {}) and field not in ("crop", "original")
    ]
    for letter, field in redundant:
        less = {**back, letter: {k: v for k, v in back[letter].items() if k != field}}
        other = handed_down(LETTERS, Layer("frame", below), Layer("part", less))
        assert other[letter].values.get(field) != lower[letter].values[field]


def test_spans_that_go_take_what_lay_between_with_them():
    """An original shown cropped, another one, the first again as a whole: without the span between
    it would be handed the crop."""
    said = {"D": {"original": 1, "crop": "left"}, "C": {"original": 2}, "B": {"original": 1}}
    held = handed_down(LETTERS, Layer("part", said))
    back = to_set({"B": held["D"], "A": held["B"]}, taken_back=lambda field, values: ALL_OF_IT)
    assert back == {"B": {"original": 1, "crop": "left"}, "A": {"crop": ALL_OF_IT}}
