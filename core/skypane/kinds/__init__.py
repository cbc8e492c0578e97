"""The kinds of placement that come with this package, a folder each: what they can be told, how
they lay out their parts, what is wrong with them, how they are written, what they read of their
own.

A kind stands above all other rooms and may use any; none of them knows it. It makes itself known to
`layouts`, and to `findings.rule`, `markup.own`, `markup.scripts` and `reading.own` where it has
something to say there.
"""

from skypane.kinds import banner, beside, grid, logo, picture, slides
from skypane.reading.nouns import complete

__all__ = ["banner", "beside", "grid", "logo", "picture", "slides"]

complete()
