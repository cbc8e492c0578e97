"""What is wrong with words in one span, and what helps: the noun, and words for it."""

from __future__ import annotations

from typing import Literal

from skypane.advice.remedies import Remedy
from skypane.values import Answer

Problem = Literal["unreadable", "covers", "outgrows", "before-loading"]


class WordsAdvice(Answer):
    """What is wrong with the words in one span, in a sentence, why, and what helps; `best` is the
    index of the first remedy that works."""

    problem: Problem
    sentence: str
    why: str
    steps: tuple[Remedy, ...]
    best: int | None


def advised(problem: Problem, sentence: str, why: str, steps: list[Remedy]) -> WordsAdvice:
    best = next((i for i, s in enumerate(steps) if s.works), None)
    return WordsAdvice(problem=problem, sentence=sentence, why=why, steps=tuple(steps), best=best)


def the(name: str) -> str:
    return f"the {name.lower()}"
