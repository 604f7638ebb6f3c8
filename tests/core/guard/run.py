"""Cases of every class, drawn by a seed and judged."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from tests.core.guard import asymptotes, forms, inequalities, pieces
from tests.core.guard.truths import Case

#: What makes the cases, with how often each is drawn.
MAKERS: dict[Callable[[random.Random], Case], int] = {
    forms.outer: 6,
    forms.ended: 2,
    forms.asked_otherwise: 2,
    pieces.piece: 2,
    inequalities.between: 2,
    inequalities.endless: 1,
    asymptotes.far: 2,
}


@dataclass
class Tally:
    """What came of some cases.

    Attributes:
        right: how many were decided, and rightly.
        weak: cases of which something is undecided, each with what.
        wrong: cases with a claim that is not true, each with what was claimed.
    """

    right: int = 0
    weak: list[tuple[Case, str]] = field(default_factory=list)
    wrong: list[tuple[Case, str]] = field(default_factory=list)


def cases(count: int, seed: int) -> Iterator[Case]:
    """Yield so many cases."""
    drawn = random.Random(seed)  # noqa: S311 - a fixed seed is wanted
    for make in drawn.choices(tuple(MAKERS), tuple(MAKERS.values()), k=count):
        yield make(drawn)


def run(count: int, seed: int) -> Tally:
    """Judge so many cases."""
    tally = Tally()
    for case in cases(count, seed):
        is_wrong, amiss = case.judge()
        if is_wrong:
            tally.wrong.append((case, amiss))
        elif amiss:
            tally.weak.append((case, amiss))
        else:
            tally.right += 1
    return tally
