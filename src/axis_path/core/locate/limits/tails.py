"""To which line a function comes near far out, with proof.

For all x beyond an end, a step is written as a polynomial and a rest: quotients by long division,
square roots by completing the square, atan and tanh by what they come to, floor(u) as u and
something between -1 and 0. If the polynomial of the whole is a line and the rest comes to 0, the
line is its asymptote, with exact coefficients.
"""

from __future__ import annotations

from dataclasses import dataclass

from flint import arb, fmpq

from axis_path.core.evaluate import Op, RealFunction
from axis_path.core.evaluate.graph.graph import Step
from axis_path.core.locate.limits.growth import FarOut, Growth
from axis_path.core.locate.limits.monomial import (
    MINUS,
    ONE,
    ZERO,
    Monomial,
    Polynomial,
    Rate,
    UnknownGrowthError,
    poly_product,
    poly_scaled,
    poly_sum,
)


@dataclass(frozen=True, slots=True)
class _Tail:
    """A polynomial and a rest; None for no rest."""

    polynomial: Polynomial
    rest: Growth | None = None


def line_far_out(function: RealFunction, far: float) -> tuple[Rate, Rate] | None:
    """Return the line to which a function comes near for large x.

    Args:
        function: its own domain is not looked at.
        far: an end above 1.

    Returns:
        The slope of the line and its height at 0; None if there is none that is known.
    """
    try:
        tail = _Tails(FarOut(function, arb(far))).result()
    except UnknownGrowthError:
        return None
    if tail.rest is None or max(tail.polynomial, default=0) > 1:
        return None
    if not tail.rest.factor.is_finite() or tail.rest.monomial.trend() >= 0:
        return None
    return tail.polynomial.get(1, ZERO), tail.polynomial.get(0, ZERO)


class _Tails:
    def __init__(self, out: FarOut) -> None:
        self._out = out
        self._made: dict[int, _Tail] = {}

    def result(self) -> _Tail:
        return self._tail(self._out.top)

    def _tail(self, position: int) -> _Tail:
        if position not in self._made:
            polynomial = self._out.polynomials[position]
            self._made[position] = (
                _Tail(polynomial) if polynomial is not None else self._operation(position)
            )
        return self._made[position]

    def _operation(self, position: int) -> _Tail:
        step = self._out.steps[position]
        match step.op:
            case Op.ADD | Op.SUBTRACT:
                one, other = map(self._tail, step.arguments)
                return self._sum(one, other if step.op == Op.ADD else _turned(other))
            case Op.NEGATIVE:
                return _turned(self._tail(step.arguments[0]))
            case "floor" | "ceil":
                lost = arb(-1).union(0) if step.op == "floor" else arb(0).union(1)
                return self._sum(self._tail(step.arguments[0]), _Tail({}, Growth(Monomial(), lost)))
            case Op.MULTIPLY | Op.DIVIDE | "sqrt" | "atan" | "tanh":
                tail = self._special(step)
                if tail is not None:
                    return tail
        return _Tail({}, self._out.growth(position))

    def _sum(self, one: _Tail, other: _Tail) -> _Tail:
        rests = [tail.rest for tail in (one, other) if tail.rest is not None]
        rest = rests[0] if len(rests) == 1 else self._out.total(*rests) if rests else None
        return _Tail(poly_sum(one.polynomial, other.polynomial), rest)

    def _special(self, step: Step) -> _Tail | None:
        given = [self._out.polynomials[argument] for argument in step.arguments]
        match step.op, given:
            case Op.DIVIDE, [_, bottom] if bottom:
                return self._over(self._tail(step.arguments[0]), bottom)
            case Op.MULTIPLY, [one, other] if one or other:
                factor, operand = (one, 1) if one else (other, 0)
                return self._times(factor or {}, self._tail(step.arguments[operand]))
            case "sqrt", [inner] if inner is not None and max(inner, default=0) == 2:
                return self._root(inner)
            case (("atan" | "tanh"), _):
                return self._levelled(step)
        return None

    def _times(self, factor: Polynomial, tail: _Tail) -> _Tail:
        polynomial = poly_product(factor, tail.polynomial)
        if tail.rest is None:
            return _Tail(polynomial)
        by = self._out.of(factor)
        rest = Growth(by.monomial.times(tail.rest.monomial), by.factor * tail.rest.factor)
        return _Tail(polynomial, rest)

    def _over(self, tail: _Tail, bottom: Polynomial) -> _Tail:
        divided = self._divided(tail.polynomial, bottom)
        if tail.rest is None:
            return divided
        below = self._out.of(bottom)
        if below.sign is None:
            raise UnknownGrowthError
        rest = Growth(tail.rest.monomial.over(below.monomial), tail.rest.factor / below.factor)
        return self._sum(divided, _Tail({}, rest))

    def _divided(self, top: Polynomial, bottom: Polynomial) -> _Tail:
        """Divide two polynomials; what is left over comes to 0 beside the divisor."""
        degree, whole, rest = max(bottom), dict[int, Rate](), dict(top)
        leading = bottom[degree]
        inverse = Rate(1 / leading.value, None if leading.exact is None else 1 / leading.exact)
        while rest and max(rest) >= degree:
            power = max(rest) - degree
            factor = rest[max(rest)].times(inverse)
            whole[power] = factor
            less = poly_product({power: factor}, bottom)
            # What is taken off is the leading term itself, whatever its last digits are.
            del rest[max(rest)]
            less.pop(power + degree, None)
            rest = poly_sum(rest, poly_scaled(less, MINUS))
        if not rest:
            return _Tail(whole)
        above, below = self._out.of(rest), self._out.of(bottom)
        if below.sign is None:
            raise UnknownGrowthError
        return _Tail(
            whole, Growth(above.monomial.over(below.monomial), above.factor / below.factor)
        )

    def _root(self, inner: Polynomial) -> _Tail:
        """Take the root of a x^2 + b x + c: it is a line L, and (inner - L^2)/(root + L)."""
        a, b = inner[2], inner.get(1, ZERO)
        if a.sign() < 0:
            raise UnknownGrowthError
        slope = Rate(a.value.sqrt(), _exact_root(a.exact))
        twice = slope.times(Rate.of(2))
        exact = None if b.exact is None or twice.exact is None else b.exact / twice.exact
        line = {1: slope}
        if not b.value.is_zero():
            line[0] = Rate(b.value / twice.value, exact)
        square = line.get(0, ZERO).times(line.get(0, ZERO))
        left = inner.get(0, ZERO).plus(square.times(MINUS))
        if left.value.is_zero():
            return _Tail(line)
        # Root and line together are at least the line, which grows as x does.
        below = self._out.of(line)
        return _Tail(line, Growth(Monomial(p=MINUS), left.value / below.factor * _up_to(ONE.value)))

    def _levelled(self, step: Step) -> _Tail:
        """Take atan or tanh of what grows: it comes to its end as 1/u, or as e^(-2u), does."""
        given = self._out.growth(step.arguments[0])
        if given.sign is None or given.monomial.trend() <= 0 or step.op == "tanh":
            return self._tail_of_tanh(step, given)
        end = Rate(arb.pi() / 2 * given.sign)
        rest = Growth(given.monomial.power(MINUS), _up_to(1 / given.factor))
        return _Tail({0: end}, Growth(rest.monomial, -rest.factor))

    def _tail_of_tanh(self, step: Step, given: Growth) -> _Tail:
        polynomial = self._out.polynomials[step.arguments[0]]
        if step.op != "tanh" or polynomial is None or given.sign is None:
            return _Tail({}, self._out.levelling_of(step))
        if given.monomial.trend() <= 0:
            raise UnknownGrowthError
        # 1 - tanh u is at most 2 e^(-2u).
        falling = poly_scaled(polynomial, Rate.of(-2 * given.sign))
        constant = falling.pop(0, ZERO)
        size = _up_to(2 * constant.value.exp()) * -given.sign
        return _Tail({0: Rate.of(given.sign)}, Growth(Monomial(falling), size))


def _turned(tail: _Tail) -> _Tail:
    rest = tail.rest
    turned = None if rest is None else Growth(rest.monomial, -rest.factor)
    return _Tail(poly_scaled(tail.polynomial, MINUS), turned)


def _up_to(most: arb) -> arb:
    """Return all numbers between 0 and a bound."""
    return arb(0).union(most)


def _exact_root(value: fmpq | None) -> fmpq | None:
    if value is None or value <= 0:
        return None
    top, bottom = value.p.root(2), value.q.root(2)
    return fmpq(top, bottom) if top * top == value.p and bottom * bottom == value.q else None
