"""What a page shows its words in until the typeface has come: a face of the visitor's own, made as
wide and as high as the typeface, so that lines break where they will and nothing moves (CSS Fonts
5, `size-adjust`, `ascent-override`; Layout Instability).
"""

from __future__ import annotations

import unicodedata
from collections.abc import Iterable
from functools import cache
from typing import NamedTuple

from fontTools.ttLib import TTFont

from skypane.model import Typeface
from skypane.words.faces import FACES, Face, advances

#: Weights below this are set in a fallback's regular face, the others in its bold one.
BOLD_FROM = 550


class Fallback(NamedTuple):
    """A face that visitors have: the names of its regular and its bold (as `local()` finds them;
    those after the first have the same widths), and the advances of U+0020 to U+007E in 1/1000
    em."""

    name: str
    regular: tuple[str, ...]
    bold: tuple[str, ...]
    advances: tuple[tuple[int, ...], tuple[int, ...]]


def _widths(said: str) -> tuple[int, ...]:
    return tuple(map(int, said.split()))


#: Read from the fonts themselves (Liberation 2, which has the widths of Arial and Times New Roman;
#: DejaVu 2.37; Roboto 3), per generic family in the order in which they are looked for.
FALLBACKS: dict[str, tuple[Fallback, ...]] = {
    "sans-serif": (
        Fallback(
            "Arial",
            ("Arial", "Liberation Sans", "Arimo", "Helvetica"),
            ("Arial Bold", "Liberation Sans Bold", "Arimo Bold", "Helvetica Bold"),
            (
                _widths(
                    "278 278 355 556 556 889 667 191 333 333 389 584 278 333 278 278 556 556 556 "
                    "556 556 556 556 556 556 556 278 278 584 584 584 556 1015 667 667 722 722 667 "
                    "611 778 722 278 500 667 556 833 722 778 667 778 722 667 611 722 667 944 667 "
                    "667 611 278 278 278 469 556 333 556 556 500 556 556 278 556 556 222 222 500 "
                    "222 833 556 556 556 556 333 500 278 556 500 722 500 500 500 334 260 334 584 "
                ),
                _widths(
                    "278 333 474 556 556 889 722 238 333 333 389 584 278 333 278 278 556 556 556 "
                    "556 556 556 556 556 556 556 333 333 584 584 584 611 975 722 722 722 722 667 "
                    "611 778 722 278 556 722 611 833 722 778 667 778 722 667 611 722 667 944 667 "
                    "667 611 333 278 333 584 556 333 556 611 556 611 556 333 611 611 278 278 556 "
                    "278 889 611 611 611 611 389 556 333 611 556 778 556 556 500 389 280 389 584 "
                ),
            ),
        ),
        Fallback(
            "Roboto",
            ("Roboto",),
            ("Roboto Bold",),
            (
                _widths(
                    "248 258 320 616 562 732 622 175 342 348 431 567 197 276 264 413 562 562 562 "
                    "562 562 562 562 562 562 562 242 211 508 549 523 473 898 652 623 651 656 568 "
                    "553 681 713 272 552 627 539 873 713 688 631 688 616 594 597 648 637 887 627 "
                    "601 599 265 411 265 418 451 309 544 562 523 564 530 348 562 551 243 239 507 "
                    "243 877 552 570 562 568 339 516 327 551 484 751 496 473 496 338 244 338 680 "
                ),
                _widths(
                    "249 271 318 592 574 739 658 161 350 351 454 545 246 394 290 371 574 574 574 "
                    "574 574 574 574 574 574 574 282 263 510 574 516 498 896 672 638 654 650 562 "
                    "549 682 706 292 559 636 541 875 706 689 645 689 641 616 620 659 653 875 635 "
                    "619 607 277 421 277 438 445 330 535 562 521 563 540 358 571 560 265 260 534 "
                    "265 866 561 564 562 564 366 514 338 560 506 734 509 503 509 330 252 330 648 "
                ),
            ),
        ),
        Fallback(
            "DejaVu Sans",
            ("DejaVu Sans",),
            ("DejaVu Sans Bold",),
            (
                _widths(
                    "318 401 460 838 636 950 780 275 390 390 500 838 318 361 318 337 636 636 636 "
                    "636 636 636 636 636 636 636 337 337 838 838 838 531 1000 684 686 698 770 632 "
                    "575 775 752 295 295 656 557 863 748 787 603 787 695 635 611 732 684 989 685 "
                    "611 685 390 337 390 838 500 500 613 635 550 635 615 352 635 634 278 278 579 "
                    "278 974 634 612 635 635 411 521 392 634 592 818 592 592 525 636 337 636 838 "
                ),
                _widths(
                    "348 456 521 838 696 1002 872 306 457 457 523 838 380 415 380 365 696 696 696 "
                    "696 696 696 696 696 696 696 400 400 838 838 838 580 1000 774 762 734 830 683 "
                    "683 821 837 372 372 775 637 995 837 850 733 850 770 720 682 812 774 1103 771 "
                    "724 725 457 365 457 838 500 500 675 716 593 716 678 435 716 712 343 343 665 "
                    "343 1042 712 687 716 716 493 595 478 712 652 924 645 652 582 712 365 712 838 "
                ),
            ),
        ),
    ),
    "serif": (
        Fallback(
            "Times",
            ("Times New Roman", "Liberation Serif", "Tinos", "Times"),
            ("Times New Roman Bold", "Liberation Serif Bold", "Tinos Bold", "Times Bold"),
            (
                _widths(
                    "250 333 408 500 500 833 778 180 333 333 500 564 250 333 250 278 500 500 500 "
                    "500 500 500 500 500 500 500 278 278 564 564 564 444 921 722 667 667 722 611 "
                    "556 722 722 333 389 722 611 889 722 722 556 722 667 556 611 722 722 944 722 "
                    "722 611 333 278 333 469 500 333 444 500 444 500 444 333 500 500 278 278 500 "
                    "278 778 500 500 500 500 333 389 278 500 500 722 500 500 444 480 200 480 541 "
                ),
                _widths(
                    "250 333 555 500 500 1000 833 278 333 333 500 570 250 333 250 278 500 500 500 "
                    "500 500 500 500 500 500 500 333 333 570 570 570 500 930 722 667 722 722 667 "
                    "611 778 778 389 500 778 667 944 722 778 611 778 722 556 667 722 722 1000 722 "
                    "722 667 333 278 333 581 500 333 500 556 444 556 444 333 500 556 278 333 556 "
                    "278 833 556 500 556 556 444 389 333 556 500 722 500 500 444 394 220 394 520 "
                ),
            ),
        ),
        Fallback(
            "DejaVu Serif",
            ("DejaVu Serif",),
            ("DejaVu Serif Bold",),
            (
                _widths(
                    "318 402 460 838 636 950 890 275 390 390 500 838 318 338 318 337 636 636 636 "
                    "636 636 636 636 636 636 636 337 337 838 838 838 536 1000 722 735 765 802 730 "
                    "694 799 872 395 401 747 664 1024 875 820 673 820 753 685 667 843 722 1028 "
                    "712 660 695 390 337 390 838 500 500 596 640 560 640 592 370 640 644 320 310 "
                    "606 320 948 644 602 640 640 478 513 402 644 565 856 564 565 527 636 337 636 "
                    "838 "
                ),
                _widths(
                    "348 439 521 838 696 950 903 306 473 473 523 838 348 415 348 365 696 696 696 "
                    "696 696 696 696 696 696 696 369 369 838 838 838 586 1000 776 845 796 867 762 "
                    "710 854 945 468 473 869 703 1107 914 871 752 871 831 722 744 872 776 1123 "
                    "776 714 730 473 365 473 838 500 500 648 699 609 699 636 430 699 727 380 362 "
                    "693 380 1058 727 667 699 699 527 563 462 727 581 861 596 581 568 643 364 643 "
                    "838 "
                ),
            ),
        ),
    ),
}


class Fitted(NamedTuple):
    """A fallback as `@font-face` has it: what it is called, where it is found, the weights that it
    stands in for, and its four descriptors in per cent."""

    family: str
    local: tuple[str, ...]
    weights: tuple[int, int]
    size: float
    ascent: float
    descent: float
    line_gap: float


def families(face: Face) -> tuple[str, ...]:
    """What the fallbacks of a typeface are called, in the order in which they are looked for."""
    return tuple(f"{face.name} as {f.name}" for f in FALLBACKS[face.fallback])


def css_family(typeface: Typeface) -> str:
    """`font-family` of texts: the typeface, what stands in for it, and what every browser has."""
    face = FACES[typeface]
    return ", ".join([*(f'"{name}"' for name in (face.name, *families(face))), face.fallback])


def fitted(typeface: Typeface, texts: Iterable[tuple[str, int]]) -> tuple[Fitted, ...]:
    """The fallbacks of a typeface for these texts, each with its weight: `size-adjust` is the width
    that the typeface sets them in over that of the fallback. Weights that no text has are left
    out."""
    face = FACES[typeface]
    said = tuple(texts)
    ascent, descent, gap = _metrics(face)
    out = []
    for family, fallback in zip(families(face), FALLBACKS[face.fallback], strict=True):
        for at, (local, weights) in enumerate(
            ((fallback.regular, (100, BOLD_FROM - 1)), (fallback.bold, (BOLD_FROM, 900)))
        ):
            mine = [(t, w) for t, w in said if weights[0] <= w <= weights[1]]
            own = sum(_set_in(typeface, t, w) for t, w in mine)
            other = sum(_set_in_fallback(fallback.advances[at], t) for t, _ in mine)
            if not own or not other:
                continue
            size = own / other
            measures = (round(100 * x / size, 2) for x in (ascent, descent, gap))
            out.append(Fitted(family, local, weights, round(100 * size, 2), *measures))
    return tuple(out)


def _plain(character: str) -> str:
    """A letter without its marks, which is as wide."""
    return unicodedata.normalize("NFD", character)[0]


def _counts(text: str) -> str:
    """The characters of a text that both faces have."""
    return "".join(c for c in text if 32 <= ord(_plain(c)) < 127)


def _set_in(typeface: Typeface, text: str, weight: int) -> float:
    counted = _counts(text)
    return advances(typeface, weight, counted).width(0, len(counted)) if counted else 0.0


def _set_in_fallback(widths: tuple[int, ...], text: str) -> float:
    return sum(widths[ord(_plain(c)) - 32] for c in _counts(text)) / 1000


@cache
def _metrics(face: Face) -> tuple[float, float, float]:
    """Ascent, descent and line gap in em, as browsers take them (OpenType, `hhea`)."""
    font = TTFont(face.files[0].unpacked)
    hhea, upem = font["hhea"], font["head"].unitsPerEm
    return hhea.ascent / upem, -hhea.descent / upem, hhea.lineGap / upem
