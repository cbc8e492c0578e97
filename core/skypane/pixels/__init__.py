"""The pixel work, done by libvips: what a picture is, and cutting and encoding renditions of it.

Importing this package limits libvips to the one file at a time that a worker handles and switches
off readers that are not used.
"""

from __future__ import annotations

import pyvips

pyvips.cache_set_max(0)
