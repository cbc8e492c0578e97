"""Which elements of a page a selector hits (Selectors Level 4)."""

import pytest
from skypane.errors import TooDemanding
from skypane.found import NothingFound, hits_in
from skypane.pixels.guarded import Guard

PAGE = """<body><main id=top><section class="hero wide"><div class=image>  Book
 a crossing </div></section><section class=hero><div class=image></div></section></main>"""


def test_all_that_it_hits_is_told_with_where_it_is():
    found = hits_in(PAGE, ".hero > .image")
    assert found.n == 2
    assert found.first[0].path == "body > main#top > section.hero.wide > div.image"
    assert found.first[0].words == "Book a crossing" and found.first[1].words == ""


def test_of_very_many_the_first_are_told():
    found = hits_in("<p>x" * 5000, "p")
    assert found.n == 5000 and len(found.first) == 20


def test_nothing_is_hit_and_what_is_no_selector_is_said():
    assert hits_in(PAGE, ".none").n == 0
    assert hits_in("no markup \x00 at all", "p").n == 0
    with pytest.raises(NothingFound, match="no selector"):
        hits_in(PAGE, "> > {")


def test_pages_are_read_by_a_child():
    guard = Guard()
    try:
        assert guard.hits(PAGE, ".hero").n == 2
        with pytest.raises(NothingFound, match="no selector"):
            guard.hits(PAGE, "..")
        with pytest.raises(TooDemanding, match="a simpler selector"):
            guard.hits("<div>" * 100_000, "div div")
        assert guard.hits(PAGE, ".hero").n == 2
    finally:
        guard.close()
