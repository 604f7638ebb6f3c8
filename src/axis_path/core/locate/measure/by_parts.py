"""Integrals of a function part by part: kinks and jumps lie between the parts, not inside."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import reduce
from itertools import pairwise

from flint import arb, arb_poly, fmpq_poly

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.catalogue import Parity
from axis_path.core.evaluate import (
    HIGH,
    LOW,
    Branches,
    Expression,
    Op,
    RealFunction,
    evaluate_constant,
    parity_about,
    to_fraction,
)
from axis_path.core.locate.algebra.polynomial import as_polynomial
from axis_path.core.locate.algebra.rational import as_quotient
from axis_path.core.locate.cells import Interval
from axis_path.core.locate.measure.endless import EndlessEnd
from axis_path.core.locate.measure.slivers import DIVERGES, TrimmedPart, trim_part
from axis_path.core.locate.search.parts import Part, SingularPoint, take_apart
from axis_path.core.locate.search.verdict import near, value_text
from axis_path.core.locate.search.zeros import find_zeros

#: With so many binary digits a function is taken apart and measured.
PART_BITS = 192
#: A function with more parts, or more zeros, is not measured part by part.
MOST_PARTS = 40
_TAIL_UNKNOWN = "whether it has a value without end is not known"
_ZEROS_UNKNOWN = "where the graph crosses the axis is not known"
_NEAR_HOLE = "the length of the graph beside a missing point is not known"
#: A cell that takes too much is cut into so many, so often.
_FINER, _MOST_FINER = 16, 1
#: An integral is known well enough with so many right bits, or if it is known up to this.
_SHARP_BITS, _SMALL = 36, arb(2) ** -60
#: So many binary digits are lost on the way where an integral is asked for all that can be had.
_SPARE = 36


@dataclass(frozen=True, slots=True)
class Parts:
    """The smooth parts of a function over an interval, all of them with values.

    Attributes:
        branches: where the branches in the parts were made.
        inside: the interval.
        parts: side by side, from end to end.
        cuts: where the function is zero, to the nearest floats; None if that is not known.
        is_rough: whether a slope grows beyond all bounds towards an end of a part.
        endless: what lies beyond the interval, where the integral goes on without end.
    """

    function: RealFunction
    branches: Branches
    inside: Interval
    parts: tuple[Part, ...]
    cuts: tuple[Ball, ...] | None
    is_rough: bool
    endless: tuple[EndlessEnd, ...] = ()

    @property
    def is_polynomial(self) -> bool:
        """Check whether the function is a polynomial in each part: its integral is exact then."""
        return all(
            as_polynomial(part.branch, part.branch.expression) is not None for part in self.parts
        )

    def whole(self, bits: int) -> Ball:
        """Return the integral, about so many binary digits of it.

        No digits tell 0 from what is very near to it: that an odd function has the integral 0 over
        an interval around its centre is known from its form, once the integral is known to exist.
        """
        result = self._whole(bits)
        is_open = result.is_defined and result.exact is None and bool(result.value.contains(0))
        return ball.from_fraction(0) if is_open and self._is_balanced() else result

    def _is_balanced(self) -> bool:
        """Check whether the function is odd about the middle of the interval."""
        middle = Fraction(0) if self.endless else _middle_of(self.inside)
        if middle is None or len(self.endless) == 1:
            return False
        program = self.function.expression.program
        return parity_about(program, middle, self.function.parameters) is Parity.ODD

    def _whole(self, bits: int) -> Ball:
        trimmed = self._trimmed_parts(bits)
        whole = [sliver.integral for part in trimmed for sliver in part.slivers]
        if any(piece.defined is Defined.NO for piece in whole):
            return _total(bits, whole)
        for part in trimmed:
            whole += self._over(part, part.branch.expression, part.abscissae, bits)
        return _total(bits, [*whole, *self._beyond(bits)])

    def _beyond(self, bits: int) -> list[Ball]:
        """Return the integrals beyond the interval, where it goes on without end."""
        tails: list[Ball] = []
        for end in self.endless:
            with precision(PART_BITS):
                cells = end.cells(bits)
            if cells is None:
                return [ball.limited(Ball(ball.whole_line()), Defined.MAYBE, _TAIL_UNKNOWN)]
            abscissae, tail = cells
            if tail is None:
                return [ball.undefined(DIVERGES)]
            outer = TrimmedPart(end.branch, tuple(abscissae), ())
            tails += [Ball(tail), *self._over(outer, end.branch.expression, abscissae, bits)]
        return tails

    def mean(self, bits: int) -> Ball:
        """Return the mean value."""
        if self.endless:
            return ball.undefined("an interval without end has no mean value")
        integral = self.whole(bits)
        with precision(bits):
            return ball.divide(integral, ball.subtract(self.inside.high, self.inside.low))

    def length(self, bits: int) -> Ball:
        """Return the length of the graph, without its jumps.

        Raises:
            NotHandledError: a slope is not known.
        """
        if self.endless:
            return ball.undefined("the graph has no end")
        trimmed = self._trimmed_parts(bits)
        slivers = [sliver for part in trimmed for sliver in part.slivers]
        lengths = [sliver.length for sliver in slivers]
        if any(piece.defined is Defined.NO for piece in lengths):
            return _total(bits, lengths)
        if any(sliver.is_hole for sliver in slivers):
            return ball.limited(Ball(ball.whole_line()), Defined.MAYBE, _NEAR_HOLE)
        for part in trimmed:
            lengths += self._over(part, part.branch.expression.speed(), part.abscissae, bits)
        return _total(bits, lengths)

    def area(self, bits: int) -> Ball:
        """Return the area between the graph and the axis.

        The cuts are the nearest floats, which changes the area by the square of what they are off:
        far less than any digit that is shown.
        """
        if self.cuts is None:
            return ball.limited(Ball(ball.whole_line()), Defined.MAYBE, _ZEROS_UNKNOWN)
        trimmed = self._trimmed_parts(bits)
        slivers = [sliver.integral for part in trimmed for sliver in part.slivers]
        if any(piece.defined is Defined.NO for piece in slivers):
            return _total(bits, slivers)
        sizes = []
        for part in trimmed:
            low, high = part.abscissae[0], part.abscissae[-1]
            inside = [cut for cut in self.cuts or () if _is_between(low, cut, high)]
            abscissae = sorted([*part.abscissae, *inside], key=_middle)
            areas = self._over(part, part.branch.expression, abscissae, bits)
            if inside:
                # A cut is near a zero and not at it: no fraction that comes of it is the area.
                areas = [replace(area, exact=None, turns=None) for area in areas]
            areas += [sliver.integral for sliver in part.slivers]
            with precision(bits):
                sizes += [ball.absolute(area) for area in areas]
        if self.endless and not all(end.keeps_sign for end in self.endless):
            return ball.limited(Ball(ball.whole_line()), Defined.MAYBE, _ZEROS_UNKNOWN)
        with precision(bits):
            beyond = [ball.absolute(size) for size in self._beyond(bits)]
        return _total(bits, [*sizes, *beyond])

    def _trimmed_parts(self, bits: int) -> list[TrimmedPart]:
        with precision(PART_BITS):
            return [trim_part(self.branches, part, bits) for part in self.parts]

    def _over(
        self, part: TrimmedPart, expression: Expression, abscissae: Sequence[Ball], bits: int
    ) -> list[Ball]:
        """Return the integral over each cell between neighbouring places; exact for polynomials."""
        polynomial = as_polynomial(part.branch, expression)
        if polynomial is not None:
            with precision(bits + _SPARE):
                sums = [_value_of(polynomial.integral(), abscissa) for abscissa in abscissae]
                return [ball.subtract(after, before) for before, after in pairwise(sums)]
        whole, parameters = expression.integral(), self.function.parameters
        # Places beside a rough end have many figures.
        working, wanted_bits = (PART_BITS, bits) if part.slivers else (bits + _SPARE, bits)

        def over(low: Ball, high: Ball, finer: int) -> Ball:
            """Integrate over a cell, in finer cells if it takes too much at once."""
            inputs = {LOW: low, HIGH: high}
            value = evaluate_constant(
                whole, parameters, bits=working, inputs=inputs, wanted_bits=wanted_bits
            )
            if finer == 0 or _is_sharp(value) or value.defined is Defined.NO:
                return value
            with precision(working):
                width = (high.value - low.value) / _FINER
                inner = [Ball((low.value + k * width).mid()) for k in range(1, _FINER)]
            cells = pairwise([low, *inner, high])
            return _total(working, [over(a, b, finer - 1) for a, b in cells])

        return [over(low, high, _MOST_FINER) for low, high in pairwise(abscissae)]


def smooth_parts(
    function: RealFunction, inside: Interval, endless: tuple[EndlessEnd, ...] = ()
) -> Parts | str | None:
    """Return the parts of a function over an interval.

    Args:
        function: its own domain is respected.
        inside: from a number to a number.
        endless: what lies beyond these, where the integral goes on.

    Returns:
        A sentence if the function lacks a value somewhere, and nothing is known of it beside that
        place; None if the parts are not all known.
    """
    with precision(PART_BITS):
        anatomy = take_apart(function, inside)
        if not anatomy.complete or len(anatomy.parts) > MOST_PARTS:
            return None
        if any(part.defined is not Defined.YES for part in anatomy.parts):
            gap = next(part for part in anatomy.parts if part.defined is not Defined.YES)
            if gap.defined is not Defined.NO:
                return None
            return f"no value at {function.variable} = {near(gap.middle, _width(inside))}"
        branches = anatomy.branches
        parts = tuple(map(_cancelled, anatomy.parts))
        trimmed = [trim_part(branches, part, PART_BITS) for part in parts]
        for singular, neighbours in zip(
            anatomy.singular_points, _sides(parts, trimmed), strict=True
        ):
            value = anatomy.value_at(singular)
            if value.defined is Defined.MAYBE and not _is_own_end(singular, value):
                return None
            if not all(
                _is_settled(branches, part, singular, result) for part, result in neighbours
            ):
                return f"no value at {function.variable} = {value_text(singular.abscissa)}"
        is_rough = any(part.slivers for part in trimmed)
    zeros = find_zeros(function, inside)
    is_cut = zeros.complete and len(zeros) <= MOST_PARTS
    cuts = tuple(ball.from_fraction(Fraction(zero.x)) for zero in zeros) if is_cut else None
    return Parts(function, branches, inside, parts, cuts, is_rough, endless)


def _sides(
    parts: Sequence[Part], trimmed: Sequence[TrimmedPart]
) -> Iterator[list[tuple[Part, TrimmedPart]]]:
    """Return, for each singular point, the parts beside it with their intervals."""
    pairs = list(zip(parts, trimmed, strict=True))
    yield pairs[:1]
    yield from ([before, after] for before, after in pairwise(pairs))
    yield pairs[-1:]


def _cancelled(part: Part) -> Part:
    """Return a part whose branch is a polynomial where what it is divided by cancels."""
    expression = part.branch.expression
    quotient = as_quotient(part.branch, expression)
    steps = expression.program.steps
    if quotient is None or quotient.bottom.degree() > 0 or quotient.top == 0:
        return part
    variable = next((k for k, step in enumerate(steps) if step.op == Op.VARIABLE), None)
    if variable is None or not any(step.op == Op.DIVIDE for step in steps):
        return part
    whole = quotient.top * (1 / quotient.bottom[0])
    coefficients = [to_fraction(whole[k]) for k in range(int(whole.degree()) + 1)]
    polynomial = expression.polynomial_of(variable, coefficients)
    return replace(part, branch=replace(part.branch, expression=polynomial))


def _is_settled(
    branches: Branches, part: Part, singular: SingularPoint, neighbours: TrimmedPart
) -> bool:
    """Check whether a branch goes on to one, or is bounded or known to diverge beside it."""
    if any(
        sliver.abscissa.value.overlaps(singular.abscissa.value) for sliver in neighbours.slivers
    ):
        return True
    value = branches.settled(part.branch, singular.abscissa, singular.zeros)
    return value.is_defined and bool(value.value.is_finite())


def _width(inside: Interval) -> float:
    return float((inside.high.value - inside.low.value).mid())


#: What is measured over an interval, and how; the area needs the zeros.
MEASURED: dict[str, Callable[[Parts, int], Ball]] = {
    "integral": Parts.whole,
    "area": Parts.area,
    "mean value": Parts.mean,
    "arc length": Parts.length,
}


def _is_own_end(singular: SingularPoint, value: Ball) -> bool:
    """Check whether the interval ends where the values do, at a place known to many digits."""
    return singular.is_end and bool(singular.zeros) and bool(value.value.is_finite())


def _is_sharp(value: Ball) -> bool:
    """Check whether an integral is known to the digits that are shown, or is as good as 0."""
    if not value.is_defined:
        return False
    return value.value.rel_accuracy_bits() >= _SHARP_BITS or bool(value.value.rad() < _SMALL)


def _total(bits: int, parts: Sequence[Ball]) -> Ball:
    with precision(bits):
        return reduce(ball.add, parts)


def _value_of(polynomial: fmpq_poly, abscissa: Ball) -> Ball:
    if abscissa.exact is not None:
        return ball.from_fraction(to_fraction(polynomial(abscissa.exact)))
    return Ball(arb_poly(polynomial)(abscissa.value))


def _is_between(low: Ball, abscissa: Ball, high: Ball) -> bool:
    return bool(abscissa.value > low.value) and bool(abscissa.value < high.value)


def _middle_of(inside: Interval) -> Fraction | None:
    """Return the middle of an interval, if it is a fraction that is known."""
    low, high = inside.low, inside.high
    if low.exact is not None and high.exact is not None:
        return to_fraction(low.exact + high.exact) / 2
    if low.turns is not None and high.turns is not None and low.turns == -high.turns:
        return Fraction(0)
    return None


def _middle(abscissa: Ball) -> arb:
    # Not as a float: places beside an end differ in digits that no float has.
    return abscissa.value.mid()
