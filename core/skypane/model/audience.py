"""Who looks at a site: the mix of viewports, densities and formats that a plan is weighed
against."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, Field, model_validator

from skypane.values import Noun

MOST_VIEWERS = 500

Weight = Annotated[float, Field(ge=0, le=1e9, allow_inf_nan=False)]


class Viewers(Noun):
    """Everybody who looks through one viewport (CSS px) at one density. Weights are compared with
    each other; they need not add up to anything."""

    width: Annotated[int, Field(ge=1, le=20_000)]
    height: Annotated[int, Field(ge=1, le=20_000)]
    density: Annotated[float, Field(ge=0.25, le=8)] = 1
    weight: Weight = 1


def _somebody(viewers: tuple[Viewers, ...]) -> tuple[Viewers, ...]:
    if not sum(v.weight for v in viewers) > 0:
        raise ValueError("All weights of the audience are 0: nobody looks. Give some row a weight.")
    return viewers


Audience = Annotated[
    tuple[Viewers, ...], Field(min_length=1, max_length=MOST_VIEWERS), AfterValidator(_somebody)
]

#: Made up: phones at two and three device px per CSS px, tablets, laptops, desktop screens. Whoever
#: knows their own visitors brings a table of them.
USUAL_AUDIENCE: tuple[Viewers, ...] = (
    Viewers(width=360, height=800, density=3, weight=14),
    Viewers(width=375, height=667, density=2, weight=6),
    Viewers(width=390, height=844, density=3, weight=16),
    Viewers(width=412, height=915, density=2.625, weight=12),
    Viewers(width=430, height=932, density=3, weight=8),
    Viewers(width=768, height=1024, density=2, weight=3),
    Viewers(width=820, height=1180, density=2, weight=3),
    Viewers(width=1280, height=720, density=1.5, weight=5),
    Viewers(width=1366, height=768, density=1, weight=8),
    Viewers(width=1440, height=900, density=2, weight=8),
    Viewers(width=1536, height=864, density=1.25, weight=6),
    Viewers(width=1920, height=1080, density=1, weight=9),
    Viewers(width=2560, height=1440, density=1, weight=2),
)


class Takes(Noun):
    """Which share of the audience takes each format: the newest that their browser knows. The
    defaults are from memory."""

    avif: Weight = 93
    webp: Weight = 5
    jpeg: Weight = 2

    @model_validator(mode="after")
    def _somebody(self) -> Takes:
        if not self.avif + self.webp + self.jpeg > 0:
            raise ValueError("Nobody takes any format: all shares are 0. Give one a weight.")
        return self
