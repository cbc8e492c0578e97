"""One verdict for every width, and the file that is taken there."""

import pytest
from bannered import banner
from skypane import model as m
from skypane.layouts import begun
from skypane.picks import Environment, pick
from skypane.reading import read
from skypane.reading.verdicts import ORDER
from skypane.shown.plan import plan
from skypane.strip import strip_screens

SITE = m.Site()
BOAT = m.Area(name="Boat", rect=m.Rect(x=0.8, y=0.3, w=0.15, h=0.4))
WITH = m.Original(
    id=1, name="quay.jpg", width_px=5200, height_px=2900, sha256="1", alt="", areas=(BOAT,)
)
WITHOUT = m.Original(id=2, name="sea.jpg", width_px=5200, height_px=2900, sha256="2", alt="")
SMALL = m.Original(id=3, name="boat.jpg", width_px=1082, height_px=800, sha256="3", alt="")
ALL = {o.id: o for o in (WITH, WITHOUT, SMALL)}


def reading(original: int, **values: object):
    treatment = m.Treatment(original=original, **values)
    return read(SITE, m.picture("Quay", {"D": treatment}), ALL)


def at(found, width: int, density: float = 2):
    runs = next(v for v in found.verdicts if v.density == density).runs
    return next(r for r in runs if r.first <= width <= r.last)


@pytest.mark.parametrize("original", ALL)
@pytest.mark.parametrize(
    "height",
    [m.NaturalHeight(), m.RatioHeight(w=3, h=4), m.FixedHeight(height_px=500)],
    ids=lambda h: h.kind,
)
def test_a_verdict_is_whole_only_where_nothing_is_wrong(original, height):
    """At every width, for every density: the worst of the bands that hold there."""
    found = reading(original, height=height)
    for told in found.verdicts:
        assert [told.runs[0].first, told.runs[-1].last] == [320, 2560]
        assert all(a.last + 1 == b.first for a, b in zip(told.runs, told.runs[1:], strict=False))
        bands = [
            b
            for b in found.parts[0].bands
            if b.kind != "weight" and b.density in (None, told.density)
        ]
        for width in range(320, 2561, 7):
            here = [r.verdict for b in bands for r in b.runs if r.first <= width <= r.last]
            wrong = [v for v in ORDER if v in here]
            run = at(found, width, told.density)
            assert run.verdict == (wrong[0] if wrong else "whole"), width


def test_much_out_of_view_without_a_keep_area_is_not_whole():
    """16:9 in 3:4 shows 42.19 % of its width (worked from the rule): nothing says whether what
    matters is among it, so an area is asked for."""
    tall = m.RatioHeight(w=3, h=4)
    found = reading(2, height=tall)
    run = at(found, 800)
    assert (run.verdict, run.band, run.figured) == ("trimmed", "seen.0", "{out} out of view")
    (asked,) = [f.sentence for f in found.findings if f.rule == "no-area"]
    assert "at most 58 % at 320 px, and no keep area says what matters" in asked
    # where it has one it is judged by that; shown whole there is nothing to ask
    assert at(reading(1, height=tall), 800).word == "all whole"
    for values in ({"height": m.NaturalHeight()}, {"height": tall, "fit": "contain"}):
        other = reading(2, **values)
        assert at(other, 800).band != "seen.0"
        assert "no-area" not in {f.rule for f in other.findings}


def test_the_file_at_a_width_is_the_one_that_a_browser_takes():
    """By the markup itself, at both densities; also of a picture that is too small."""
    for original in ALL:
        for lists in ("fitting", "densities"):
            site = SITE.model_copy(update={"lists": lists})
            treatments = {
                "D": m.Treatment(original=original, width=m.ShareWidth(percent=60)),
                "A": m.Treatment(width=m.FullWidth(), height=m.RatioHeight(w=1, h=1)),
            }
            found = read(site, m.picture("Quay", treatments), ALL)
            for band in (b for b in found.parts[0].bands if b.kind == "sharp"):
                for run in band.taken:
                    for width in (run.first, run.last):
                        env = Environment(width, 900, band.density)
                        taken = pick(found.code.markup_text, env).url
                        stem = taken.removeprefix("images/").rpartition(".")[0]
                        assert stem == run.stem, (original, lists, width, band.density)


def test_an_inset_over_the_words_hides_them():
    """The words have no contrast where something lies on them, whatever lies under."""
    layout = {"D": {"place": "middle", "inset_place": "middle", "inset_px": 200}}
    inset = m.Part(role="inset", treatments={"D": m.Treatment(original=2)})
    plain = banner(layout)
    hidden = plain.model_copy(update={"parts": (*plain.parts[:1], inset)})
    found = read(SITE, hidden, {**ALL, **dict.fromkeys(hidden.original_ids, ALL[2])})
    run = at(found, 1200)
    assert run.band.startswith(("readable", "clear"))
    assert {b.name for b in found.words.bands if b.kind == "clear"} >= {"Inset clear"}
    assert "inset-in-the-way" in {f.rule for f in found.findings}
    assert not any("Move the mark" in f.remedy for f in found.findings)


def test_in_small_a_placement_is_what_visitors_see():
    """Words and insets on a banner, the cells of a grid, of slides only the one that shows first:
    each where its frame lies in the box (frames by the layout itself)."""
    shown = m.Part(treatments={"D": m.Treatment(original=1)})
    inset = m.Part(role="inset", treatments={"D": m.Treatment(original=1)})
    plain = banner({"D": {"inset_place": "bottom-end"}})
    wide = strip_screens(plan(SITE, plain.model_copy(update={"parts": (shown, inset)}), ALL))[-1]
    assert [c.round for c in wide.cells] == [False, True]
    assert (wide.cells[0].x, wide.cells[0].w) == (0, 1)
    assert wide.cells[1].x > 0.5 and len(wide.texts) == 3 and wide.texts[2].fill == "#ffffff"
    on_colour = m.Part(treatments={"D": m.Treatment(show="colour", background="#102030")})
    bare = strip_screens(plan(SITE, plain.model_copy(update={"parts": (on_colour,)}), ALL))[-1]
    assert (bare.show, bare.colour, len(bare.texts)) == ("colour", "#102030", 3)
    for kind, cells in (("grid", 5), ("slides", 1)):
        many = begun(kind, SITE, m.Placement(name="Many", parts=(shown,) * 5))
        found = strip_screens(plan(SITE, many, ALL))[-1]
        assert len(found.cells) == cells
        assert all(c.x >= 0 and c.x + c.w <= 1 + 1e-9 for c in found.cells)


def test_of_a_set_of_which_none_or_several_show_the_verdict_says_which():
    """Two that stand in for each other, both dropped on narrow screens and both shown on wide
    ones."""
    treatments = {"D": m.Treatment(original=1), "A": m.Treatment(show="nothing")}
    first, second = (
        m.picture(name, treatments).model_copy(update={"one_of": "head"}) for name in "AB"
    )
    found = read(SITE, first, ALL, siblings=lambda: (second,))
    assert [(at(found, w).word, at(found, w).drawn) for w in (360, 1200)] == [
        ("none show", "lost"),
        ("several show", "cut"),
    ]
