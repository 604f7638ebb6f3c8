"""Cases of every class, drawn by a seed and judged."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from tests.core.guard import (
    along,
    asymptotes,
    drawn,
    equations,
    exact_forms,
    forms,
    inequalities,
    integrals,
    invariants,
    lines,
    paths,
    pieces,
)
from tests.core.guard.truths import Case

#: What makes the cases, with how often each is drawn.
MAKERS: dict[Callable[[random.Random], Case], int] = {
    forms.outer: 40,
    forms.ended: 10,
    forms.asked_otherwise: 10,
    pieces.piece: 10,
    pieces.adjacent: 8,
    inequalities.between: 8,
    inequalities.endless: 6,
    asymptotes.far: 8,
    along.along: 2,
    paths.crossed: 2,
    paths.circled: 2,
    paths.met: 2,
    equations.solved: 6,
    equations.periodic: 6,
    exact_forms.exact: 2,
    integrals.between: 1,
    integrals.improper: 1,
    lines.body: 6,
    drawn.drawn: 1,
    invariants.changed: 4,
    invariants.shifted: 4,
    invariants.sized: 4,
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
    source = random.Random(seed)  # noqa: S311 - a fixed seed is wanted
    for make in source.choices(tuple(MAKERS), tuple(MAKERS.values()), k=count):
        yield make(source)


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
