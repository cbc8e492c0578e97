"""What a browser takes from the markup of an `img` or `picture`, and why (HTML Standard, §4.8.4
Images)."""

from skypane.picks.choose import Pick, pick
from skypane.picks.markup import Markup, read_markup
from skypane.picks.media import Environment
from skypane.picks.reach import reach

__all__ = ["Environment", "Markup", "Pick", "pick", "reach", "read_markup"]
