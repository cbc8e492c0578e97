"""What a reading is made of."""

from skypane.reading.nouns.bands import Band, EdgesPx, FileRun, VerdictRun, Verdicts, ViewportPoint
from skypane.reading.nouns.code import Code, CodeLine, Pane, Script
from skypane.reading.nouns.items import (
    CommonRatioReading,
    FailingItems,
    ItemReading,
    ItemsReading,
    Sharpest,
)
from skypane.reading.nouns.ladders import LadderReading, Rung, TakenAt, TakenRun, Tradeoff
from skypane.reading.nouns.own import OwnReading
from skypane.reading.nouns.pages import OnPage, PageOverflow, PageReading, PageSpan
from skypane.reading.nouns.spans import (
    CropFacts,
    CropStop,
    HeldRatio,
    Hold,
    MovingSpan,
    OverallSafe,
    PxNeed,
    RatioCrop,
    SpanDetail,
    SpanReading,
    WidthSum,
)
from skypane.reading.nouns.whole import (
    LayoutSpan,
    Moving,
    MovingPart,
    PartReading,
    Reading,
    complete,
)
from skypane.reading.nouns.words import (
    BoxCurves,
    LinesRun,
    MarkSpan,
    WordsReading,
    WordsSpan,
    WordsText,
)

__all__ = [
    "Band",
    "BoxCurves",
    "Code",
    "CodeLine",
    "CommonRatioReading",
    "CropFacts",
    "CropStop",
    "EdgesPx",
    "FailingItems",
    "FileRun",
    "HeldRatio",
    "Hold",
    "ItemReading",
    "ItemsReading",
    "LadderReading",
    "LayoutSpan",
    "LinesRun",
    "MarkSpan",
    "Moving",
    "MovingPart",
    "MovingSpan",
    "OnPage",
    "OverallSafe",
    "OwnReading",
    "PageOverflow",
    "PageReading",
    "PageSpan",
    "Pane",
    "PartReading",
    "PxNeed",
    "RatioCrop",
    "Reading",
    "Rung",
    "Script",
    "Sharpest",
    "SpanDetail",
    "SpanReading",
    "TakenAt",
    "TakenRun",
    "Tradeoff",
    "VerdictRun",
    "Verdicts",
    "ViewportPoint",
    "WidthSum",
    "WordsReading",
    "WordsSpan",
    "WordsText",
    "complete",
]
