"""Where text breaks, against a plain reading of CSS Text 3 and Unicode's own examples, and how wide
it is, against the typeface's own tables."""

import numpy as np
import pytest
from fontTools.ttLib import TTFont
from hypothesis import given, settings
from hypothesis import strategies as st
from skypane.words.faces import FACES, advances
from skypane.words.lines import _at_pieces, _breaks_in, lines_at, longest_piece, unset
from uniseg.linebreak import line_break_boundaries

words = st.text("abcdefghijklmnoprstuvwyz", min_size=1, max_size=14)


@pytest.mark.parametrize("name", FACES)
def test_characters_are_as_wide_as_the_typeface_says(name):
    """The advances of `hmtx` at the default weight; without kerning, a character at a time."""
    file = FACES[name].files[0]
    font = TTFont(file.path)
    upem, widths, glyphs = font["head"].unitsPerEm, font["hmtx"], font.getBestCmap()
    weight = int(next(a.defaultValue for a in font["fvar"].axes if a.axisTag == "wght"))
    for c in "HxoQ8é—":
        assert advances(name, weight, c).ends[-1] == pytest.approx(widths[glyphs[ord(c)]][0] / upem)


@pytest.mark.parametrize("file", [f for face in FACES.values() for f in face.files])
def test_what_is_measured_is_what_is_handed_over(file):
    """The unpacked file has the tables of the WOFF 2 that pages get (WOFF File Format 2.0, §5:
    unpacked glyphs may be written otherwise, and say the same)."""
    packed, plain = TTFont(file.path), TTFont(file.unpacked)
    assert packed.getBestCmap() == plain.getBestCmap()
    assert packed.getGlyphOrder() == plain.getGlyphOrder()
    assert packed["hmtx"].metrics == plain["hmtx"].metrics
    assert packed["glyf"] == plain["glyf"]
    same = set(packed.keys()) - {"glyf", "loca", "head", "hmtx", "GlyphOrder"}
    assert same == set(plain.keys()) - {"glyf", "loca", "head", "hmtx", "GlyphOrder"}
    assert all(packed.getTableData(tag) == plain.getTableData(tag) for tag in same)


def test_pairs_are_kerned():
    together = advances("Instrument Sans", 700, "AVATAR").ends[-1]
    apart = sum(advances("Instrument Sans", 700, c).ends[-1] for c in "AVATAR")
    assert together < apart - 0.02


def greedy(text, size, room, weight=400, face="Instrument Sans"):
    """As CSS Text 3 tells it: word after word as long as they fit, trailing spaces hanging."""
    n, line = 1, ""
    for word in text.split(" "):
        longer = f"{line} {word}" if line else word
        fits = advances(face, weight, longer).ends[-1] * size <= room + 1 / 64
        if fits or not line:
            line = longer
        else:
            n, line = n + 1, word
    return n


@settings(max_examples=60)
@given(st.lists(words, min_size=1, max_size=25), st.floats(12, 60), st.floats(0.05, 1.2))
def test_lines_are_filled_word_after_word(some, size, share):
    text = " ".join(some)
    widest = max(advances("Instrument Sans", 400, w).ends[-1] for w in some) * size
    room = widest + share * 400
    found = lines_at("Instrument Sans", 400, size, text, np.array([room]))
    assert found.n[0] == greedy(text, size, room)
    assert found.longest[0] <= room + 1 / 32


@settings(max_examples=40)
@given(
    st.text("ab -—中\u200b,.é", min_size=1, max_size=120),
    st.lists(st.floats(1, 900), min_size=2, max_size=30),
)
def test_many_rooms_at_once_are_each_as_if_alone(text, rooms):
    together = lines_at("Newsreader", 700, 23.5, text, np.array(rooms))
    for i, room in enumerate(rooms):
        alone = lines_at("Newsreader", 700, 23.5, text, np.array([room]))
        assert (together.n[i], together.longest[i]) == (alone.n[0], alone.longest[0])


def n_lines(text, room, size=20):
    return int(lines_at("Instrument Sans", 400, size, text, np.array([float(room)])).n[0])


def width(text, size=20):
    return float(advances("Instrument Sans", 400, text).ends[-1] * size)


def test_breaks_are_those_of_unicode():
    """UAX 14: after a hyphen (LB21), not before closing punctuation (LB13), not at a no-break space
    (LB12), between ideographs (ID)."""
    assert n_lines("well-known", max(width("well-"), width("known")) + 1) == 2
    assert n_lines("sea (open)", width("sea (open") + 0.5) == 2
    assert n_lines("sea\u00a0open", width("sea") + 2) > 1  # broken all the same, between graphemes
    assert longest_piece("Instrument Sans", 400, "a sea\u00a0open b") == pytest.approx(
        advances("Instrument Sans", 400, "sea\u00a0open").ends[-1], abs=1e-6
    )
    assert n_lines("海海海海", 45) == 2


@given(st.text("ab (),.!«»“”—-/%中é", max_size=40))
def test_word_by_word_or_all_at_once_breaks_are_the_same(text):
    said = " ".join(text.split(" ")).strip()
    if said:
        whole = [b for b in line_break_boundaries(said) if b]
        assert _at_pieces(said, _breaks_in) == whole


def test_line_feeds_break_and_spaces_fold():
    assert n_lines("one\ntwo\n\nthree", 1000) == 4
    assert n_lines("  one    two  ", width("one two") + 0.1) == 1


def test_a_word_without_end_is_broken_between_graphemes():
    assert n_lines("x" * 1000, 100) >= 1000 * width("x") / 100 - 1
    assert n_lines("é" * 50, 1) == 50  # at least one to a line


@pytest.mark.parametrize(
    ("text", "strange"), [("Zażółć", ""), ("שלום", "שלום"), ("The sea 🌊", "🌊"), ("海 sea", "海")]
)
def test_what_the_typeface_lacks_is_told(text, strange):
    assert unset("Instrument Sans", 400, text) == tuple(dict.fromkeys(strange))
    assert n_lines(text, 1000) == 1
