"""Integrals of a function part by part: kinks and jumps lie between the parts, not inside."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import reduce
from itertools import pairwise

from flint import arb, arb_poly, fmpq_poly

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.evaluate import (
    HIGH,
    LOW,
    Expression,
    RealFunction,
    Workshop,
    evaluate_constant,
    to_fraction,
)
from axis_path.core.locate.cells import Interval
from axis_path.core.locate.parts import Anatomy, Part, Spot, take_apart
from axis_path.core.locate.polynomial import as_polynomial
from axis_path.core.locate.slivers import Stretch, stretch
from axis_path.core.locate.verdict import value_text
from axis_path.core.locate.zeros import find_zeros

#: With so many binary digits a function is taken apart and measured.
PART_BITS = 192
#: A function with more parts, or more zeros, is not measured part by part.
MOST_PARTS = 40
#: So many binary digits are lost on the way where an integral is asked for all that can be had.
_SPARE = 36


@dataclass(frozen=True, slots=True)
class Parts:
    """The smooth parts of a function over an interval, all of them with values.

    Attributes:
        workshop: where the branches in the parts were made.
        inside: the interval.
        parts: side by side, from end to end.
        cuts: where the function is zero, to the nearest floats; None if that is not known.
        is_rough: whether a slope grows beyond all bounds towards an end of a part.
    """

    function: RealFunction
    workshop: Workshop
    inside: Interval
    parts: tuple[Part, ...]
    cuts: tuple[Ball, ...] | None
    is_rough: bool

    def whole(self, bits: int) -> Ball:
        """Give the integral, about so many binary digits of it."""
        found = []
        for part in self._stretches(bits):
            found += self._over(part, part.branch.expression, part.places, bits)
            found += [sliver.integral for sliver in part.slivers]
        return _total(bits, found)

    def mean(self, bits: int) -> Ball:
        """Give the mean value."""
        found = self.whole(bits)
        with precision(bits):
            return ball.divide(found, ball.subtract(self.inside.high, self.inside.low))

    def length(self, bits: int) -> Ball:
        """Give the length of the graph, without its jumps.

        Raises:
            NotHandledError: a slope is not known.
        """
        found = []
        for part in self._stretches(bits):
            found += self._over(part, part.branch.expression.speed(), part.places, bits)
            found += [sliver.length for sliver in part.slivers]
        return _total(bits, found)

    def area(self, bits: int) -> Ball:
        """Give the area between the graph and the axis.

        The cuts are the nearest floats, which changes the area by the square of what they are off:
        far less than any digit that is shown.
        """
        sizes = []
        for part in self._stretches(bits):
            low, high = part.places[0], part.places[-1]
            inside = [cut for cut in self.cuts or () if _is_between(low, cut, high)]
            places = sorted([*part.places, *inside], key=_middle)
            found = self._over(part, part.branch.expression, places, bits)
            if inside:
                # A cut is near a zero and not at it: no fraction that comes of it is the area.
                found = [replace(each, exact=None, turns=None) for each in found]
            found += [sliver.integral for sliver in part.slivers]
            with precision(bits):
                sizes += [ball.absolute(each) for each in found]
        return _total(bits, sizes)

    def _stretches(self, bits: int) -> list[Stretch]:
        with precision(PART_BITS):
            return [stretch(self.workshop, part, bits) for part in self.parts]

    def _over(
        self, part: Stretch, expression: Expression, places: Sequence[Ball], bits: int
    ) -> list[Ball]:
        """Give the integral over each cell between neighbouring places; exact for polynomials."""
        polynomial = as_polynomial(part.branch, expression)
        if polynomial is not None:
            with precision(bits + _SPARE):
                sums = [_value_of(polynomial.integral(), place) for place in places]
                return [ball.subtract(after, before) for before, after in pairwise(sums)]
        whole, parameters = expression.integral(), self.function.parameters
        # Places beside a rough end have many figures.
        working, wanted = (PART_BITS, bits) if part.slivers else (bits + _SPARE, bits)
        return [
            evaluate_constant(
                whole, parameters, bits=working, inputs={LOW: low, HIGH: high}, wanted=wanted
            )
            for low, high in pairwise(places)
        ]


def smooth_parts(function: RealFunction, inside: Interval) -> Parts | str | None:
    """Give the parts of a function over an interval.

    Returns:
        A sentence if the function lacks a value somewhere; None if the parts are not all known.
    """
    with precision(PART_BITS):
        anatomy = take_apart(function, inside)
        if not anatomy.complete or len(anatomy.parts) > MOST_PARTS:
            return None
        for before, spot, after in anatomy.beside():
            value = anatomy.value_at(spot)
            if value.defined is Defined.NO:
                if not _is_open_end(anatomy, spot, before or after):
                    return f"no value at {function.variable} = {value_text(spot.place)}"
            elif value.defined is not Defined.YES and not _is_own_end(spot, value):
                return None
        if any(part.defined is not Defined.YES for part in anatomy.parts):
            return None
        shop = anatomy.workshop
        is_rough = any(stretch(shop, part, PART_BITS).slivers for part in anatomy.parts)
    zeros = find_zeros(function, inside)
    is_cut = zeros.complete and len(zeros) <= MOST_PARTS
    cuts = tuple(ball.from_fraction(Fraction(zero.x)) for zero in zeros) if is_cut else None
    return Parts(function, shop, inside, anatomy.parts, cuts, is_rough)


#: What is measured over an interval, and how; the area needs the zeros.
MEASURED: dict[str, Callable[[Parts, int], Ball]] = {
    "integral": Parts.whole,
    "area": Parts.area,
    "mean value": Parts.mean,
    "arc length": Parts.length,
}


def _is_own_end(spot: Spot, value: Ball) -> bool:
    """Tell whether the interval ends where the values do, at a place known to many digits."""
    return spot.is_end and bool(spot.zeros) and bool(value.value.is_finite())


def _is_open_end(anatomy: Anatomy, spot: Spot, part: Part | None) -> bool:
    """Tell whether a domain leaves out its end at a spot, where the branch goes on."""
    ends = (anatomy.function.low, anatomy.function.high)
    is_own = any(
        end is not None and ball.subtract(end.value, spot.place).sign() == 0 for end in ends
    )
    return (
        spot.is_end
        and is_own
        and part is not None
        and part.branch.prove(spot.place).defined is Defined.YES
    )


def _total(bits: int, parts: Sequence[Ball]) -> Ball:
    with precision(bits):
        return reduce(ball.add, parts)


def _value_of(polynomial: fmpq_poly, place: Ball) -> Ball:
    if place.exact is not None:
        return ball.from_fraction(to_fraction(polynomial(place.exact)))
    return Ball(arb_poly(polynomial)(place.value))


def _is_between(low: Ball, place: Ball, high: Ball) -> bool:
    return bool(place.value > low.value) and bool(place.value < high.value)


def _middle(place: Ball) -> arb:
    # Not as a float: places beside an end differ in digits that no float has.
    return place.value.mid()
