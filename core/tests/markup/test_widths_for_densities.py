"""Lists of densities that stand beside lists of widths: written as widths, they offer the same."""

import math

from hypothesis import given
from hypothesis import strategies as st
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_lines
from skypane.markup.sizes import steady_size
from skypane.picks import Environment, pick
from skypane.shown.plan import plan

ORIGINAL = m.Original(id=1, name="a.jpg", width_px=6000, height_px=4000, alt="x", sha256="1")


@given(
    frame=st.floats(16, 2000),
    densities=st.lists(st.sampled_from([1.25, 1.5, 2, 2.5, 3, 4]), unique=True).map(sorted),
    capped=st.booleans(),
    dpr=st.sampled_from([1, 1.25, 1.5, 2, 2.5, 3, 4]),
    policy=st.sampled_from(["least-sufficient", "chromium", "firefox", "webkit"]),
)
def test_the_same_file_is_taken_in_every_engine(frame, densities, capped, dpr, policy):
    """By every engine's own rules (docs/engines.md), at every density that is offered or common;
    also where the greatest has fewer px than it should."""
    offered = [1, *densities]
    widths = [math.ceil(round(frame * d, 4)) for d in offered]
    if capped and len(widths) > 1:
        widths[-1] = max(widths[-2] + 1, widths[-1] - 7)
    files = [
        m.Rendition.model_construct(width_px=w, density=d, name=f"{d}.avif")
        for w, d in zip(widths, offered, strict=True)
    ]
    x = ", ".join(f"{f.name} {f.density}x" for f in files)
    w = ", ".join(f"{f.name} {f.width_px}w" for f in files)
    env = Environment(1000, 800, dpr, policy=policy)
    by_x = pick(f"<picture><source srcset='{x}'><img></picture>", env)
    size = steady_size(files)
    by_w = pick(f"<picture><source srcset='{w}' sizes='{size}'><img></picture>", env)
    assert by_w.url == by_x.url, (w, size)


def test_only_beside_lists_of_widths_are_densities_written_as_widths():
    fixed = m.Treatment(original=1, width=m.FixedWidth(width_px=700))
    alone = plan(m.Site(), m.picture("A", {"D": fixed}), {1: ORIGINAL})
    text = text_of(placement_lines(alone, renditions(alone)))
    assert " 2x" in text and "sizes" not in text
    full = m.Treatment(width=m.FullWidth(), height=m.RatioHeight(w=1, h=1))
    mixed = plan(m.Site(), m.picture("A", {"D": fixed, "B": full}), {1: ORIGINAL})
    text = text_of(placement_lines(mixed, renditions(mixed)))
    assert " 2x" not in text and 'sizes="700px"' in text
