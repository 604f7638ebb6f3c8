"""Balls: one real number, or an interval, held with a proved radius at any precision.

A ``Ball`` knows more than its bounds: whether its operation was defined on the whole of its input,
whether it is continuous there, and, for single numbers, an exact form (a fraction, or a fraction
times pi) as long as one is easily carried along. Where it is undefined, it holds the reason.

python-flint keeps its working precision in one global place for all threads, so every computation
with balls happens inside ``precision``, which lets one thread in at a time.

Source: Johansson, *Arb: efficient arbitrary-precision midpoint-radius interval arithmetic*, 2017.
"""

from __future__ import annotations

from dataclasses import dataclass, fields, replace
from enum import IntEnum
from fractions import Fraction
from functools import lru_cache

import flint
from flint import arb, fmpq

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.conversion import EXACT_BITS, WHOLE_BITS


class Defined(IntEnum):
    """Whether an operation has a value on its whole input."""

    NO = 0
    MAYBE = 1
    YES = 2


@dataclass(frozen=True, slots=True, init=False)
class Ball:
    """A number or an interval.

    Attributes:
        value: contains every value that the operation takes on its input, where it is defined.
        exact: the number itself, if it is a known fraction.
        turns: the number divided by pi, if that is a known fraction.
        defined: whether there is a value on the whole input.
        continuous: whether it is proved to be continuous where it is defined.
        reason: why it is (or may be) undefined, in words; empty where it is defined.
    """

    value: arb
    exact: fmpq | None = None
    turns: fmpq | None = None
    defined: Defined = Defined.YES
    continuous: bool = True
    reason: str = ""

    def __init__(
        self,
        value: arb,
        exact: fmpq | None = None,
        turns: fmpq | None = None,
        defined: Defined = Defined.YES,
        continuous: bool = True,
        reason: str = "",
    ) -> None:
        # What is made for a frozen class takes three times as long; tens of thousands are made.
        _put_value(self, value)
        _put_exact(self, exact)
        _put_turns(self, turns)
        _put_defined(self, defined)
        _put_continuous(self, continuous)
        _put_reason(self, reason)

    @property
    def is_defined(self) -> bool:
        """Check whether there is a value for the whole input."""
        return self.defined is Defined.YES

    def excludes_zero(self) -> bool:
        """Check whether no value of it can be zero (also where it has no value at all)."""
        return self.defined is Defined.NO or bool(self.value > 0) or bool(self.value < 0)

    def sign(self) -> int | None:
        """Return -1, 0 or 1 if all of it has that sign, else None."""
        if bool(self.value > 0):
            return 1
        if bool(self.value < 0):
            return -1
        return 0 if self.value.is_zero() else None


_put_value, _put_exact, _put_turns, _put_defined, _put_continuous, _put_reason = (
    getattr(Ball, field.name).__set__ for field in fields(Ball)
)


@lru_cache(maxsize=8192)
def _rational(numerator: int, denominator: int, _bits: int) -> Ball:
    """Make the ball of a fraction at the present precision; balls never change."""
    rational = fmpq(numerator, denominator)
    return Ball(arb(rational), exact=rational)


def from_fraction(value: Fraction | int) -> Ball:
    """Make the ball of an exact number."""
    return _rational(value.numerator, value.denominator, flint.ctx.prec)


def from_bounds(low: arb, high: arb) -> Ball:
    """Make the ball of all numbers from ``low`` to ``high``."""
    return Ball(low.union(high))


def pi() -> Ball:
    """Return pi."""
    return Ball(arb.pi(), turns=fmpq(1))


def degree() -> Ball:
    """Return pi/180, one degree in radians."""
    return Ball(arb.pi() / 180, turns=fmpq(1, 180))


def euler() -> Ball:
    """Return e, the base of the natural logarithm."""
    return Ball(arb.const_e())


def undefined(reason: str) -> Ball:
    """Return the ball of an operation that has no value at all."""
    return Ball(arb.nan(), defined=Defined.NO, continuous=False, reason=reason)


def _small(value: fmpq) -> fmpq | None:
    most = WHOLE_BITS if value.q == 1 else EXACT_BITS
    return value if value.height_bits() <= most else None


def made(value: arb, *sources: Ball, exact: fmpq | None = None, turns: fmpq | None = None) -> Ball:
    """Put a result together; it is as defined and as continuous as its sources."""
    if exact is not None:
        exact = _small(exact)
        value = arb(exact) if exact is not None else value
    for source in sources:
        if source.defined is not Defined.YES or not source.continuous:
            break
    else:
        # Nearly all of them: there is nothing to report.
        return Ball(value, exact, turns)
    worst, continuous = sources[0], True
    for source in sources:
        if source.defined < worst.defined:
            worst = source
        continuous = continuous and source.continuous
    return Ball(value, exact, turns, worst.defined, continuous, worst.reason)


def limited(ball: Ball, defined: Defined, reason: str, *, continuous: bool = True) -> Ball:
    """Mark a ball as that of an operation that is not defined everywhere on its input."""
    if defined is Defined.NO:
        return undefined(ball.reason or reason)
    if defined < ball.defined:
        ball = replace(ball, defined=defined, reason=ball.reason or reason)
    return ball if continuous else replace(ball, continuous=False)


def whole_line() -> arb:
    """Return the ball of all real numbers, for what is not bounded."""
    return arb(0, float("inf"))


def add(a: Ball, b: Ball) -> Ball:
    """Return a + b."""
    exact = a.exact + b.exact if a.exact is not None and b.exact is not None else None
    turns = a.turns + b.turns if a.turns is not None and b.turns is not None else None
    if exact is None and turns is None:
        # A sum with an exact zero keeps the other's exact form.
        if a.exact is not None and a.exact == 0:
            exact, turns = b.exact, b.turns
        elif b.exact is not None and b.exact == 0:
            exact, turns = a.exact, a.turns
    if turns is not None and turns == 0:
        exact = fmpq(0)
    return made(a.value + b.value, a, b, exact=exact, turns=turns)


def negative(a: Ball) -> Ball:
    """Return -a."""
    exact = -a.exact if a.exact is not None else None
    turns = -a.turns if a.turns is not None else None
    return made(-a.value, a, exact=exact, turns=turns)


def subtract(a: Ball, b: Ball) -> Ball:
    """Return a - b."""
    exact = a.exact - b.exact if a.exact is not None and b.exact is not None else None
    turns = a.turns - b.turns if a.turns is not None and b.turns is not None else None
    if exact is None and turns is None:
        # A difference with an exact zero keeps the other's exact form.
        if b.exact is not None and b.exact == 0:
            exact, turns = a.exact, a.turns
        elif a.exact is not None and a.exact == 0:
            exact = -b.exact if b.exact is not None else None
            turns = -b.turns if b.turns is not None else None
    if turns is not None and turns == 0:
        exact = fmpq(0)
    return made(a.value - b.value, a, b, exact=exact, turns=turns)


def multiply(a: Ball, b: Ball) -> Ball:
    """Return a b."""
    exact = turns = None
    if a.exact is not None and b.exact is not None:
        exact = a.exact * b.exact
    elif a.exact is not None and b.turns is not None:
        turns = a.exact * b.turns
    elif a.turns is not None and b.exact is not None:
        turns = a.turns * b.exact
    if (a.exact is not None and a.exact == 0) or (b.exact is not None and b.exact == 0):
        exact, turns = fmpq(0), None
    value = a.value * b.value
    # 0 times an unbounded ball is not a number for the library; any value is possible.
    return made(whole_line() if value.is_nan() else value, a, b, exact=exact, turns=turns)


def divide(a: Ball, b: Ball) -> Ball:
    """Return a / b."""
    reason = messages.DIVISION_BY_ZERO
    if b.sign() == 0:
        return undefined(a.reason or b.reason or reason)
    if not b.excludes_zero():
        return limited(made(whole_line(), a, b), Defined.MAYBE, reason, continuous=False)
    exact = turns = None
    if a.exact is not None and b.exact is not None:
        exact = a.exact / b.exact
    elif a.turns is not None and b.exact is not None:
        turns = a.turns / b.exact
    elif a.turns is not None and b.turns is not None:
        exact = a.turns / b.turns
    elif a.exact is not None and a.exact == 0:
        exact = fmpq(0)
    return made(a.value / b.value, a, b, exact=exact, turns=turns)


def absolute(a: Ball) -> Ball:
    """Return |a|."""
    if a.sign() == -1:
        return negative(a)
    return a if a.sign() is not None else made(abs(a.value), a)


def integer_power(a: Ball, n: int) -> Ball:
    """Return a^n for a whole n; a^0 is 1."""
    if n == 0:
        return made(arb(1), a, exact=fmpq(1))
    if n < 0:
        return divide(from_fraction(1), integer_power(a, -n))
    exact = None
    if a.exact is not None:
        most = WHOLE_BITS if a.exact.q == 1 else EXACT_BITS
        exact = a.exact**n if (a.exact.height_bits() - 1) * n <= most else None
    value = a.value**n if a.excludes_zero() else _power_across_zero(a.value, n)
    return made(value, a, exact=exact)


def _power_across_zero(value: arb, n: int) -> arb:
    """Return the power of a ball that holds 0; the library's is wider, or not a number."""
    if value.is_zero():
        return arb(0)
    low, high = value.lower(), value.upper()
    if n % 2:
        return (low**n).union(high**n)
    return arb(0).union(max(abs(low), abs(high)) ** n)


def root(a: Ball, numerator: int, denominator: int) -> Ball:
    """Return a^(numerator/denominator), in lowest terms: the real root for an odd denominator."""
    if numerator < 0:
        return divide(from_fraction(1), root(a, -numerator, denominator))
    if denominator == 1:
        return integer_power(a, numerator)
    sign = a.sign()
    if denominator % 2 == 0:
        reason = (
            messages.SQRT_NEGATIVE_NUMBER
            if denominator == 2
            else messages.EVEN_ROOT_NEGATIVE_NUMBER
        )
        if sign == -1:
            return undefined(a.reason or reason)
        inner = a if sign is not None else replace(a, value=a.value.nonnegative_part())
        result = integer_power(_root_of_positive(inner, denominator), numerator)
        return result if sign is not None else limited(result, Defined.MAYBE, reason)
    if sign is None:
        high = _odd_root(a.value.upper(), denominator)
        low = _odd_root(a.value.lower(), denominator)
        return integer_power(made(low.union(high), a), numerator)
    if sign == -1:
        result = negative(_root_of_positive(negative(a), denominator))
        return integer_power(result, numerator)
    return integer_power(_root_of_positive(a, denominator), numerator)


def _odd_root(value: arb, n: int) -> arb:
    return value.root(n) if value >= 0 else -((-value).root(n))


def _root_of_positive(a: Ball, n: int) -> Ball:
    exact = None
    if a.exact is not None:
        top, bottom = int(a.exact.p), int(a.exact.q)
        root_top, root_bottom = _whole_root(top, n), _whole_root(bottom, n)
        if root_top is not None and root_bottom is not None:
            exact = fmpq(root_top, root_bottom)
    value = a.value.sqrt() if n == 2 else a.value.root(n)
    return made(value, a, exact=exact)


def _whole_root(value: int, n: int) -> int | None:
    """Return the whole n-th root of a whole number, or None."""
    if value.bit_length() > EXACT_BITS:
        return None
    whole = flint.fmpz(value).root(n)
    return int(whole) if whole**n == value else None


def square_root(a: Ball) -> Ball:
    """Return the square root of a."""
    return root(a, 1, 2)


def power(a: Ball, b: Ball) -> Ball:
    """Return a^b for an exponent that is not fixed: whole for any base, else for a > 0."""
    if b.exact is not None and b.exact.q == 1 and abs(b.exact) <= 2**31:
        return limited(integer_power(a, int(b.exact.p)), b.defined, b.reason)
    reason = messages.POWER_NEGATIVE_NUMBER
    sign = a.sign()
    if sign == 1:
        return made(a.value**b.value, a, b)
    if sign == 0:
        if b.sign() == 1:
            return made(arb(0), a, b, exact=fmpq(0))
        return (
            undefined(messages.DIVISION_BY_ZERO)
            if b.sign() == -1
            else undefined(messages.UNKNOWN_POWER)
        )
    whole_inside = bool(b.value.contains_integer())
    if sign == -1 and not whole_inside:
        return undefined(a.reason or b.reason or reason)
    return limited(made(whole_line(), a, b), Defined.MAYBE, reason, continuous=False)


def restrict(body: Ball, holds: bool | None, reason: str) -> Ball:
    """Leave ``body`` only where a condition holds; None means that it cannot be determined."""
    if holds is None:
        return limited(body, Defined.MAYBE, reason)
    return body if holds else undefined(reason)


def join(possible: list[Ball], reason: str, *, is_certain: bool) -> Ball:
    """Join balls of which one is meant; it cannot be determined which.

    Args:
        possible: what may be meant; none if nothing can be.
        reason: why there may be no value.
        is_certain: whether one of them is meant for sure.
    """
    if not possible:
        return undefined(reason)
    if len(possible) == 1 and is_certain:
        return possible[0]
    with_value = [branch for branch in possible if branch.defined is not Defined.NO]
    if not with_value:
        return possible[0]
    value = with_value[0].value
    for branch in with_value[1:]:
        value = value.union(branch.value)
    result = Ball(value, continuous=False)
    worst = min(possible, key=lambda item: item.defined)
    if worst.defined is not Defined.YES:
        return limited(result, Defined.MAYBE, worst.reason, continuous=False)
    return result if is_certain else limited(result, Defined.MAYBE, reason, continuous=False)
