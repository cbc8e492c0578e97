"""What a row that sets a value of a kind is told of it."""

import pytest
from skypane.layouts.facts import value_facts
from skypane.layouts.layout import kind_names


def test_a_number_is_told_with_its_unit_and_bounds():
    facts = value_facts("banner")
    assert facts["heading_px"].model_dump() == {
        "name": "size of the heading",
        "unit": "px",
        "least": 8,
        "most": 400,
        "whole": False,
        "choices": (),
        "under": False,
    }
    assert facts["colour"].under and not facts["place"].under
    # a share of the picture's width, as its name says
    assert (facts["percent"].unit, facts["percent"].least) == ("%", 5)
    assert facts["mark_percent"].unit == "%"
    assert value_facts("slides")["every_s"].unit == "s"
    assert value_facts("slides")["at_a_time"].unit == ""


def test_a_choice_is_told_with_what_can_be_chosen():
    assert value_facts("banner")["align"].choices == ("start", "centre", "end")
    assert value_facts("banner")["inset_round"].choices == ()


@pytest.mark.parametrize("kind", kind_names())
def test_every_number_has_a_bound_and_every_value_a_name(kind):
    for field, facts in value_facts(kind).items():
        assert facts.name and not facts.name.endswith(("_px", "_percent")), field
        if facts.unit:
            # where the other one is not among them, it is refused with its reason
            assert (facts.least, facts.most) != (None, None), field


def test_of_a_kind_that_is_not_there_nothing_is_told():
    assert value_facts("mural") == {}
