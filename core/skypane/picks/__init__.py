"""What a browser takes from the markup of an `img` or `picture`, and why (HTML Standard, §4.8.4
Images)."""

from skypane.picks.choose import Pick, pick
from skypane.picks.media import Environment

__all__ = ["Environment", "Pick", "pick"]
