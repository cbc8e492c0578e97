"""Originals with keep areas, and one of them in a single span."""

from planned import span_plans
from skypane.geometry import Rect
from skypane.model import Area, Original, Site, Treatment, picture

SITE = Site(narrowest=320, widest=700, breakpoints=())


def original(*areas, size=(1600, 900), id=1, focal=(0.5, 0.5), **kw):
    """Areas are rectangles as x0, x1, y0, y1, or areas themselves."""
    named = tuple(
        (
            a
            if isinstance(a, Area)
            else Area(name=f"K{i}", rect=Rect(x=a[0], y=a[2], w=a[1] - a[0], h=a[3] - a[2]))
        )
        for i, a in enumerate(areas)
    )
    return Original(
        id=id,
        name=f"o{id}.jpg",
        width_px=size[0],
        height_px=size[1],
        focal=focal,
        areas=named,
        **kw,
    )


def plan_of(o, site=SITE, **treatment):
    """An original that fills the page, in the widest span's treatment."""
    return span_plans(
        site,
        picture(name="x", treatments={"A": Treatment(original=o.id, **treatment)}),
        {o.id: o},
    )[0]
