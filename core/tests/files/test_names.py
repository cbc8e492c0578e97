"""What files are called: names that say which cut they show."""

import pytest
from skypane.comparing import changes_between
from skypane.files.names import cut_id, file_stem, first_name, slot_of, version_of
from skypane.geometry import Crop
from skypane.model import Naming

WHOLE = Crop(x=0, y=0, w=4000, h=3000)
TALL = Crop(x=400, y=0, w=2400, h=3000)


def test_a_cut_is_known_by_the_file_and_the_px_that_it_keeps():
    assert cut_id("a" * 64, WHOLE) == cut_id("a" * 64, Crop(x=0, y=0, w=4000, h=3000))
    assert len({cut_id("a" * 64, WHOLE), cut_id("a" * 64, TALL), cut_id("b" * 64, WHOLE)}) == 3


def test_the_first_cut_goes_without_a_number_and_every_later_one_keeps_its_own():
    assert version_of("one", ()) == "" and version_of("one", ("one", "two")) == ""
    assert version_of("two", ("one",)) == "_v2" and version_of("two", ("one", "two")) == "_v2"
    assert version_of("three", ("one", "two")) == "_v3"


@pytest.mark.parametrize("naming", [Naming(), Naming(parts=("span", "name", "size"))])
def test_the_number_stands_behind_the_name_wherever_that_is(naming):
    second = file_stem("mast", "narrow", 800, naming, version="_v2")
    assert second != file_stem("mast", "narrow", 800, naming)
    assert "mast_v2" in second
    assert (
        first_name(f"images/{second}.avif")
        == f"images/{file_stem('mast', 'narrow', 800, naming)}.avif"
    )


@pytest.mark.parametrize("name", ["mast-v2@800w.avif", "mast-2.jpg", "v2.jpg", "mast@2x.webp"])
def test_names_that_only_look_like_a_later_cut_stay(name):
    assert first_name(name) == name


def test_spans_have_cuts_of_their_own():
    assert len({slot_of("mast", None), slot_of("mast", "a"), slot_of("mast-2", "a")}) == 3


def test_two_deliveries_are_held_against_each_other_by_the_first_name():
    """Another cut of a file is a file that has changed, not one more and one less."""

    def entry(name, sha256, size):
        return {"name": f"images/{name}", "sha256": sha256, "bytes": size}

    before = [entry("mast@800w.avif", "a", 100), entry("mast--a@800w.avif", "c", 50)]
    after = [entry("mast_v2@800w.avif", "b", 80), entry("mast--a@800w.avif", "c", 50)]
    told = changes_between(before, after)
    assert told.same == 1
    (file,) = told.files
    assert (file.name, file.change) == ("images/mast_v2@800w.avif", "lighter")
    assert (file.before_bytes, file.after_bytes) == (100, 80)
