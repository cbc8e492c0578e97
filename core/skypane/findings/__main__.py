"""Print the page that tells of all rules."""

from skypane.findings import documentation

print(documentation(), end="")
