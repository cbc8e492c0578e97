"""What is handed over to a host that takes no markup, and what such a host cannot do."""

from skypane.hosts.handed import HostReading, host_reading, host_texts
from skypane.hosts.lacks import Lack
from skypane.hosts.rules import rules_lines
from skypane.hosts.sheet import Sheet, SheetRow, sheet_of
from skypane.hosts.sheet_page import sheet_html

__all__ = [
    "HostReading",
    "Lack",
    "Sheet",
    "SheetRow",
    "host_reading",
    "host_texts",
    "rules_lines",
    "sheet_html",
    "sheet_of",
]
