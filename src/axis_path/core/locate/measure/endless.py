"""Ends of an integral that goes on without end: where nothing new happens, and what is beyond."""

from __future__ import annotations

from dataclasses import dataclass

from flint import arb

from axis_path.core.arithmetic import Ball
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Branches, RealFunction
from axis_path.core.locate.limits.outside import Outside
from axis_path.core.locate.measure.improper import tail_of

#: Beyond one of these a function is to be one smooth branch.
_ENDS = (16, 10**3, 10**6, 10**12)
#: Cells grow so many times from each to the next, and there are so many of them at most.
_LARGER, _MOST_CELLS = 4, 60
#: Waves are followed no farther than this.
_FAR_WAVES = 2_000
#: No more binary digits of a tail are asked for.
_MOST_BITS = 96


@dataclass(frozen=True, slots=True)
class EndlessEnd:
    """What lies beyond a far end.

    Attributes:
        branch: the function out there, of a variable that grows: f(-x) where x falls.
        start: the far end, above 0.
        keeps_sign: whether it is proved to have no zero out there.
    """

    branch: RealFunction
    start: int
    keeps_sign: bool

    def cells(self, bits: int) -> tuple[list[Ball], arb | None] | None:
        """Return the ends of cells from the far end on, and the integral beyond the last.

        Args:
            bits: so many binary digits of the integral are wanted.

        Returns:
            None if what is beyond is not known; no integral if it diverges.
        """
        abscissae = [Ball(arb(self.start))]
        for _ in range(_MOST_CELLS):
            tail = tail_of(self.branch, abscissae[-1].value)
            if tail is not None and tail.integral is None:
                return abscissae, None
            if tail is not None and tail.integral is not None:
                if tail.sign is None and bool(abscissae[-1].value > _FAR_WAVES):
                    # A wave that goes on: there are too many of them before it is small.
                    return None
                room = (1 + abs(tail.integral)) * arb(2) ** -min(bits, _MOST_BITS)
                if bool(arb(tail.integral.rad()) < room):
                    return abscissae, tail.integral
            abscissae.append(Ball(abscissae[-1].value * _LARGER))
        return None


def endless_end(function: RealFunction, side: int, other: float) -> EndlessEnd | None:
    """Return what lies beyond a far end of a function; None if it is not known to be one branch.

    Called inside ``precision``.

    Args:
        function: without an end of its own domain on that side.
        side: -1 for numbers below all bounds, 1 above.
        other: the size of the other end of the interval.
    """
    branches = Branches(function)
    for end in _ENDS:
        if end <= 2 * other:
            continue
        outside = Outside(branches, side, float(end))
        if not outside.is_one_branch():
            continue
        branch = branches.branch(branches.function, Ball(arb(side * end) * 3 / 2))
        try:
            keeps_sign = outside.keeps_away(branch)
        except (LimitError, NotHandledError):
            keeps_sign = False
        turned = branch if side > 0 else branches.mirrored(branch)
        return EndlessEnd(turned, end, keeps_sign)
    return None
