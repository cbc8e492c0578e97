"""One spot on a page."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from skypane.identifiers import identifier
from skypane.model.original import MOST_WORDS
from skypane.model.treatment import Treatment
from skypane.values import Noun

#: The letter of a span: A is the narrowest.
Letter = Annotated[str, Field(pattern=r"^[A-Z]$")]


class Placement(Noun):
    """One spot on a page. `treatments` holds, per letter of a span, what that span sets itself."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    alt: Annotated[str, Field(max_length=MOST_WORDS)] | None = (
        None  # overrides the original's alt text
    )
    lead: bool = True  # whether the first screen shows it: loads at once, not lazily
    treatments: dict[Letter, Treatment] = Field(default_factory=dict)
    stem: Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,79}$")] | None = (
        None  # see `skypane.files.names.stems`
    )

    @property
    def called(self) -> str:
        """What class and files are called: `stem` where other placements of the site had to be
        looked at, else by the name."""
        return self.stem or identifier(self.name)

    @property
    def original_ids(self) -> set[int]:
        """The originals that some span sets itself."""
        return {t.original for t in self.treatments.values() if t.original is not None}
