"""A smooth branch of a function, and a place that it nears from one side."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.arithmetic import Ball
from axis_path.core.evaluate import Branches, RealFunction


@dataclass(frozen=True, slots=True)
class Approaching:
    """A branch that nears a place from one side.

    Attributes:
        branches: it made the branch.
        branch: smooth on that side of the place.
        abscissa: where.
        zeros: which steps of the branches are exactly zero there.
        side: -1 to come from below, 1 from above.
        nearby: a number on that side, where the branch is the same.
    """

    branches: Branches
    branch: RealFunction
    abscissa: Ball
    zeros: frozenset[int]
    side: int
    nearby: Ball

    def value(self, function: RealFunction) -> Ball:
        """Return the value of a function of the branches at the place."""
        return self.branches.settled(function, self.abscissa, self.zeros)
