"""One spot on a page and its parts."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Annotated, Literal

from pydantic import Field, JsonValue, model_validator

from skypane.errors import written
from skypane.identifiers import identifier
from skypane.model.condition import FEATURES, Feature, When
from skypane.model.files import MOST_RUNGS, Formats, Lists, Rungs
from skypane.model.frame import FrameId, Letter
from skypane.model.gallery import Item
from skypane.model.original import MOST_WORDS
from skypane.model.target import Target
from skypane.model.treatment import Treatment
from skypane.model.words import HeadingLevel, Words
from skypane.values import Id, Noun

Treatments = dict[Letter, Treatment]
#: A kind of placement; the layouts say which there are.
Kind = Annotated[str, written(r"^[a-z]{1,20}$", "It must be one word of small letters.")]
#: What files and a class are called.
Stem = Annotated[
    str,
    written(
        r"^[a-z][a-z0-9-]{0,79}$",
        "It must begin with a small letter and hold only small letters, digits and hyphens.",
    ),
]
MOST_PARTS = 2000
#: A part by its place in its placement.
PartIndex = Annotated[int, Field(ge=0, lt=MOST_PARTS)]


#: What a part is to its placement where it is not the picture itself: a title graphic or logo that
#: lies on it, or a small cut that stands in for it.
Role = Literal["mark", "inset"]
#: How a part is written: an `img` alone, a `picture`, the background of an element, or as a
#: drawing in the page itself.
Way = Literal["img", "picture", "background", "svg"]
#: What a part is called by those that stand in for it.
PartKey = Annotated[
    str,
    written(
        r"^[a-z0-9][a-z0-9-]{0,39}$",
        "It must begin with a small letter or a digit and hold only those and hyphens.",
    ),
]


def named_originals(values: object) -> Iterator[int]:
    """The originals that values of a kind name, however deep: each stands under `original`."""
    if isinstance(values, Mapping):
        named = values.get("original")
        if isinstance(named, int):
            yield named
        values = values.values()
    elif not isinstance(values, list | tuple):
        return
    for each in values:
        yield from named_originals(each)


class Part(Noun):
    """One picture of a placement. `treatments` holds, per letter of a span, what it sets itself.

    A *variant* stands in for another part, `of` that key, `when` all of some conditions hold. In a
    span in which it shows the usual one, or has said nothing yet, that part holds; what it does say
    is handed down to narrower spans, and lies over what holds for that part there.
    """

    role: Role | None = None
    key: PartKey | None = None
    of: PartKey | None = None
    when: When = ()
    # caption and link, where its kind has many of them
    item: Item | None = None

    # overrides the original's alt text; "": decorative on purpose
    alt: Annotated[str, Field(max_length=MOST_WORDS)] | None = None
    treatments: Treatments = Field(default_factory=dict)
    # how it is written; None: as little as says it all
    way: Way | None = None
    # widths to export in place of those that are worked out, by the widest span that takes them
    ladders: dict[Letter, Rungs] = Field(default_factory=dict)

    @model_validator(mode="after")
    def _says_both(self) -> Part:
        if (self.of is None) != (not self.when):
            raise ValueError(
                "What stands in for another picture says for which one (of), and under which"
                " conditions (when). Say both, or neither."
            )
        return self


class LayoutUnder(Noun):
    """Values of the kind itself `when` all of some conditions hold, per letter: handed down like
    those that usually hold, and laid over them in every span."""

    when: Annotated[When, Field(min_length=1)]
    layout: dict[Letter, dict[str, JsonValue]] = Field(default_factory=dict)


class Placement(Noun):
    """One spot on a page.

    `common` holds, per letter of a span, what holds for all parts: in every span it is laid under
    what a part sets there itself, and over what the named `frame` says there. `layout` holds values
    of the kind itself, handed down from wider spans to narrower ones like those of a treatment;
    `layout_under` what is laid over them under conditions.
    `n_files` is how many widths each ladder has; None: as few as the site's waste allows. `one_of`
    names a set of which exactly one placement shows at every width.
    """

    name: Annotated[str, Field(min_length=1, max_length=80)]
    kind: Kind = "picture"
    lead: bool = True  # whether the first screen shows it: loads at once, not lazily
    parts: Annotated[tuple[Part, ...], Field(max_length=MOST_PARTS)] = (Part(),)
    common: Treatments = Field(default_factory=dict)
    frame: FrameId | None = None  # the named frame of the site that lies under all treatments
    lists: Lists | None = None  # None: as the site has it
    formats: Formats | None = None  # the same
    # a few px of each picture, blurred, until its file is there; else its colour alone
    blurred: bool = False
    # the element of a host that shows it, as a selector; "": none has been named
    target: Target = ""
    # the original that shows in place of one whose file does not come
    substitute: Id | None = None
    n_files: Annotated[int, Field(ge=1, le=MOST_RUNGS)] | None = None
    layout: dict[Letter, dict[str, JsonValue]] = Field(default_factory=dict)
    layout_under: Annotated[tuple[LayoutUnder, ...], Field(max_length=2 ** len(FEATURES) - 1)] = ()
    words: Words | None = None
    title_level: HeadingLevel | None = None  # of its items' titles; None: as the site has it
    one_of: Annotated[str, written(r"\S", "It must not be blank.", max_length=40)] | None = None
    # see `skypane.files.names.stems`
    stem: Stem | None = None
    # the title of its page, where that is known and files are kept by page
    page: Annotated[str, Field(max_length=80)] = ""
    # the cuts that were handed over already, by the name they share (see `skypane.files.names`)
    handed: dict[str, tuple[str, ...]] = Field(default_factory=dict)

    @property
    def called(self) -> str:
        """What class and files are called: `stem` where other placements of the site had to be
        looked at, else by the name."""
        return self.stem or identifier(self.name)

    @property
    def original_ids(self) -> set[int]:
        """The originals that some span sets itself, and those that values of the kind name."""
        shown = {t.original for _, t in self.all_treatments() if t.original is not None}
        instead = set() if self.substitute is None else {self.substitute}
        return shown | instead | set(named_originals(self.layout))

    @property
    def features(self) -> frozenset[Feature]:
        """The features under some of which something is otherwise than usual."""
        whens = (*(p.when for p in self.parts), *(u.when for u in self.layout_under))
        return frozenset(feature for when in whens for feature in when)

    @property
    def usual(self) -> tuple[Part, ...]:
        """The parts that stand in for no other one."""
        return tuple(p for p in self.parts if p.of is None)

    def variants(self) -> dict[str, list[int]]:
        """By the key of a part the places of those that stand in for it, in the order in which
        their conditions are tested: most first, of equals the one that stands first (rules §14)."""
        found: dict[str, list[int]] = {}
        for i, part in enumerate(self.parts):
            if part.of is not None:
                found.setdefault(part.of, []).append(i)
        return {
            key: sorted(mine, key=lambda i: -len(self.parts[i].when)) for key, mine in found.items()
        }

    def all_treatments(self) -> Iterator[tuple[str, Treatment]]:
        """Every treatment with the letter of its span: those for all parts, then each part's."""
        yield from self.common.items()
        for part in self.parts:
            yield from part.treatments.items()

    def with_part(self, index: int, part: Part) -> Placement:
        """The placement with another part in one place."""
        parts = (*self.parts[:index], part, *self.parts[index + 1 :])
        return self.model_copy(update={"parts": parts})


def picture(
    name: str,
    treatments: dict[str, Treatment] | None = None,
    *,
    alt: str | None = None,
    lead: bool = True,
) -> Placement:
    """A placement of the kind *picture*: one part, which fills its frame."""
    part = Part(alt=alt, treatments=treatments or {})
    return Placement(name=name, lead=lead, parts=(part,))
