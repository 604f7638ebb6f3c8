"""Functions of balls: exponentials, angles, steps.

Exact forms are carried where a table knows them: the sine of a sixth of pi, the logarithm of 1000.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from flint import arb, fmpq

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.ball import (
    Ball,
    Defined,
    limited,
    made,
    negative,
    undefined,
    whole_line,
)
from axis_path.core.arithmetic.conversion import whole_number
from axis_path.core.wording import Text


def exponential(a: Ball) -> Ball:
    """Return e^a."""
    exact = fmpq(1) if a.exact is not None and a.exact == 0 else None
    return made(a.value.exp(), a, exact=exact)


def logarithm(a: Ball) -> Ball:
    """Return the natural logarithm of a."""
    return _logarithm(a, _LN, lambda value: value.log(), {fmpq(1): fmpq(0)})


def decimal_logarithm(a: Ball) -> Ball:
    """Return the logarithm to base 10."""
    known: dict[fmpq, fmpq] = {}
    if a.exact is not None and a.exact > 0:
        top, bottom = str(a.exact.p), str(a.exact.q)
        if a.exact.q == 1 and top.strip("0") == "1":
            known = {a.exact: fmpq(len(top) - 1)}
        elif a.exact.p == 1 and bottom.strip("0") == "1":
            known = {a.exact: fmpq(1 - len(bottom))}
    return _logarithm(a, _LOG, lambda value: value.log() / arb.const_log10(), known)


#: What is said of the logarithm of 0, of a negative number, and of one that may be either.
_LN = (messages.LN_OF_0, messages.LN_OF_A_NEGATIVE_NUMBER, messages.LN_OF_NOT_POSITIVE)
_LOG = (messages.LOG_OF_0, messages.LOG_OF_A_NEGATIVE_NUMBER, messages.LOG_OF_NOT_POSITIVE)


def _logarithm(
    a: Ball, words: tuple[Text, Text, Text], function: Callable[[arb], arb], known: dict[fmpq, fmpq]
) -> Ball:
    of_zero, of_negative, of_not_positive = words
    sign = a.sign()
    if sign in (0, -1):
        return undefined(a.reason or (of_zero if sign == 0 else of_negative))
    if sign == 1:
        exact = known.get(a.exact) if a.exact is not None else None
        return made(function(a.value), a, exact=exact)
    upper = a.value.upper()
    if not upper > 0:
        return undefined(a.reason or of_zero)
    # All of (-inf, log(upper)]: the part of the ball at or below zero has no logarithm.
    return limited(made(whole_line(), a), Defined.MAYBE, of_not_positive)


#: sin of multiples of pi that are fractions (Niven's theorem): 0, 1/2, 1 and their opposites.
_SINES = {
    fmpq(0): fmpq(0), fmpq(1, 6): fmpq(1, 2), fmpq(1, 2): fmpq(1), fmpq(5, 6): fmpq(1, 2),
    fmpq(1): fmpq(0), fmpq(7, 6): fmpq(-1, 2), fmpq(3, 2): fmpq(-1), fmpq(11, 6): fmpq(-1, 2),
}  # fmt: skip
_TANGENTS = {fmpq(0): fmpq(0), fmpq(1, 4): fmpq(1), fmpq(3, 4): fmpq(-1)}


def _reduced(turns: fmpq, period: int) -> fmpq:
    return turns - period * fmpq((turns / period).floor())


def _known_turns(a: Ball) -> fmpq | None:
    if a.turns is not None:
        return a.turns
    return fmpq(0) if a.exact is not None and a.exact == 0 else None


def sine(a: Ball) -> Ball:
    """Return sin a."""
    turns = _known_turns(a)
    if turns is None:
        return made(a.value.sin(), a)
    reduced = _reduced(turns, 2)
    return made(arb.sin_pi_fmpq(reduced), a, exact=_SINES.get(reduced))


def cosine(a: Ball) -> Ball:
    """Return cos a."""
    turns = _known_turns(a)
    if turns is None:
        return made(a.value.cos(), a)
    return sine(replace(a, exact=None, turns=turns + fmpq(1, 2)))


def tangent(a: Ball) -> Ball:
    """Return tan a."""
    turns = _known_turns(a)
    reason = messages.TAN_AT_ODD_MULTIPLE
    if turns is not None:
        reduced = _reduced(turns, 1)
        if reduced == fmpq(1, 2):
            return undefined(a.reason or reason)
        return made(a.value.tan(), a, exact=_TANGENTS.get(reduced))
    if a.value.cos().contains(0):
        return limited(made(whole_line(), a), Defined.MAYBE, reason, continuous=False)
    return made(a.value.tan(), a)


def _arc(a: Ball, name: str, function: Callable[[arb], arb], known: dict[fmpq, fmpq]) -> Ball:
    reason = messages.NAME_NUMBER_OUTSIDE(name=name)
    if bool(a.value > 1) or bool(a.value < -1):
        return undefined(a.reason or reason)
    turns = known.get(a.exact) if a.exact is not None else None
    if bool(a.value <= 1) and bool(a.value >= -1):
        exact = fmpq(0) if turns is not None and turns == 0 else None
        return made(function(a.value), a, turns=turns, exact=exact)
    low, high = (arb(-1) if a.value.lower() < -1 else a.value.lower()), a.value.upper()
    high = arb(1) if high > 1 else high
    ends = function(low).union(function(high))
    return limited(made(ends, a), Defined.MAYBE, reason)


_ARCSINES = {
    fmpq(-1): fmpq(-1, 2), fmpq(-1, 2): fmpq(-1, 6), fmpq(0): fmpq(0),
    fmpq(1, 2): fmpq(1, 6), fmpq(1): fmpq(1, 2),
}  # fmt: skip
_ARCCOSINES = {value: fmpq(1, 2) - turns for value, turns in _ARCSINES.items()}
_ARCTANGENTS = {fmpq(-1): fmpq(-1, 4), fmpq(0): fmpq(0), fmpq(1): fmpq(1, 4)}


def arcsine(a: Ball) -> Ball:
    """Return arcsin a, in radians."""
    return _arc(a, "asin", lambda value: value.asin(), _ARCSINES)


def arccosine(a: Ball) -> Ball:
    """Return arccos a, in radians."""
    return _arc(a, "acos", lambda value: value.acos(), _ARCCOSINES)


def arctangent(a: Ball) -> Ball:
    """Return arctan a, in radians."""
    turns = _ARCTANGENTS.get(a.exact) if a.exact is not None else None
    exact = fmpq(0) if turns is not None and turns == 0 else None
    return made(a.value.atan(), a, turns=turns, exact=exact)


def known_zero(a: Ball) -> fmpq | None:
    """Return 0 for a number that is exactly 0: the value there of odd functions."""
    return fmpq(0) if a.exact is not None and a.exact == 0 else None


def hyperbolic_sine(a: Ball) -> Ball:
    """Return sinh a."""
    return made(a.value.sinh(), a, exact=known_zero(a))


def hyperbolic_cosine(a: Ball) -> Ball:
    """Return cosh a."""
    exact = fmpq(1) if a.exact is not None and a.exact == 0 else None
    return made(a.value.cosh(), a, exact=exact)


def hyperbolic_tangent(a: Ball) -> Ball:
    """Return tanh a."""
    return made(a.value.tanh(), a, exact=known_zero(a))


def _steps(a: Ball, low: arb, high: arb, exact: fmpq | None) -> Ball:
    """Put a step function together from its values at the ends of the ball."""
    whole_low, whole_high = whole_number(low), whole_number(high)
    if exact is None and whole_low is not None and whole_low == whole_high:
        # All of the ball lies on one step. It is a constant there, even if the ball is wide.
        exact = fmpq(whole_low)
    if exact is not None:
        return made(arb(exact), a, exact=exact)
    return replace(made(low.union(high), a), continuous=False)


def floor(a: Ball) -> Ball:
    """Return the greatest whole number that is at most a."""
    exact = fmpq(a.exact.floor()) if a.exact is not None else None
    return _steps(a, a.value.lower().floor(), a.value.upper().floor(), exact)


def ceiling(a: Ball) -> Ball:
    """Return the smallest whole number that is at least a."""
    exact = fmpq(a.exact.ceil()) if a.exact is not None else None
    return _steps(a, a.value.lower().ceil(), a.value.upper().ceil(), exact)


def sign(a: Ball) -> Ball:
    """Return -1, 0 or 1."""
    known = a.sign()
    exact = fmpq(known) if known is not None else None
    return _steps(a, arb(-1), arb(1), exact)


def minimum(a: Ball, b: Ball) -> Ball:
    """Return the smaller of a and b."""
    if a.exact is not None and b.exact is not None:
        return made(a.value, a, b, exact=min(a.exact, b.exact))
    if bool(a.value <= b.value):
        return made(a.value, a, b, exact=a.exact, turns=a.turns)
    if bool(b.value <= a.value):
        return made(b.value, a, b, exact=b.exact, turns=b.turns)
    return made(a.value.min(b.value), a, b)


def maximum(a: Ball, b: Ball) -> Ball:
    """Return the greater of a and b."""
    return negative(minimum(negative(a), negative(b)))
