"""Under which other conditions something fails that a band speaks of."""

from __future__ import annotations

from collections.abc import Iterable

from skypane.model import Feature, Finding
from skypane.reading.nouns import Band, WordsReading

#: What findings of a rule are told of by bands of a kind.
_KINDS = {
    "area": "area",
    "unreadable": "readable",
    "words-on-area": "clear",
    "words-outgrow": "fits",
}
#: Of these kinds there are several bands, each of something that findings name.
_NAMED = ("area", "readable")


def with_elsewhere(
    bands: Iterable[Band], found: Iterable[Finding], features: tuple[Feature, ...]
) -> tuple[Band, ...]:
    """Bands that say under which conditions what they speak of fails, beside those that hold."""
    elsewhere = [
        f for f in found if f.when and f.severity == "wrong" and not set(f.when) <= set(features)
    ]
    return tuple(_told(band, elsewhere) for band in bands) if elsewhere else tuple(bands)


def words_with_elsewhere(
    words: WordsReading | None, found: Iterable[Finding], features: tuple[Feature, ...]
) -> WordsReading | None:
    """Words whose bands say under which conditions what they speak of fails; None without words."""
    if words is None:
        return None
    return words.model_copy(update={"bands": with_elsewhere(words.bands, found, features)})


def _told(band: Band, found: Iterable[Finding]) -> Band:
    whens = dict.fromkeys(f.when for f in found if _speaks_of(band, f))
    return band.model_copy(update={"elsewhere": tuple(whens)}) if whens else band


def _speaks_of(band: Band, finding: Finding) -> bool:
    if _KINDS.get(finding.rule) != band.kind:
        return False
    what = band.name.removesuffix(" readable").lower()
    return band.kind not in _NAMED or what in finding.sentence.lower()
