"""Functions of balls beyond the elementary ones: inverse hyperbolic, of whole numbers, special."""

from __future__ import annotations

import math
from collections.abc import Callable

import flint
from flint import arb, fmpq

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.ball import (
    Ball,
    Defined,
    limited,
    made,
    undefined,
    whole_line,
)
from axis_path.core.arithmetic.ball_functions import known_zero
from axis_path.core.arithmetic.conversion import WHOLE_BITS


def inverse_sinh(a: Ball) -> Ball:
    """Return arsinh a."""
    return made(a.value.asinh(), a, exact=known_zero(a))


def inverse_cosh(a: Ball) -> Ball:
    """Return arcosh a."""
    reason = messages.ACOSH_NUMBER_BELOW
    if bool(a.value < 1):
        return undefined(a.reason or reason)
    if bool(a.value >= 1):
        exact = fmpq(0) if a.exact is not None and a.exact == 1 else None
        return made(a.value.acosh(), a, exact=exact)
    upper = a.value.upper()
    return limited(made(arb(0).union(upper.acosh()), a), Defined.MAYBE, reason)


def inverse_tanh(a: Ball) -> Ball:
    """Return artanh a."""
    reason = messages.ATANH_NUMBER_OUTSIDE
    if bool(a.value >= 1) or bool(a.value <= -1):
        return undefined(a.reason or reason)
    if bool(a.value < 1) and bool(a.value > -1):
        return made(a.value.atanh(), a, exact=known_zero(a))
    return limited(made(whole_line(), a), Defined.MAYBE, reason)


def error_function(a: Ball) -> Ball:
    """Return erf a."""
    return made(a.value.erf(), a, exact=known_zero(a))


def angle_of(y: Ball, x: Ball) -> Ball:
    """Return the angle of the point (x, y) in radians, over -pi and up to pi."""
    reason = messages.ANGLE
    y_sign, x_sign = y.sign(), x.sign()
    if y_sign == 0 and x_sign == 0:
        return undefined(y.reason or x.reason or reason)
    turns = _known_turns(y, x)
    if turns is not None:
        exact = fmpq(0) if turns == 0 else None
        return made(arb.pi() * turns, y, x, exact=exact, turns=turns)
    if x_sign == 1 or y_sign in (1, -1):
        return made(arb.atan2(y.value, x.value), y, x)
    # The ball touches the half line where the angle jumps, or (0, 0) itself.
    around = made(arb(0, 1) * arb.pi(), y, x)
    if x_sign == -1:
        if bool(y.value >= 0):
            return made(arb.atan2(y.value, x.value).union(arb.pi()), y, x)
        return limited(around, Defined.YES, "", continuous=False)
    return limited(around, Defined.MAYBE, reason, continuous=False)


def _known_turns(y: Ball, x: Ball) -> fmpq | None:
    if y.exact is None or x.exact is None:
        return None
    if y.exact == 0:
        return fmpq(0) if x.exact > 0 else fmpq(1)
    side = 1 if y.exact > 0 else -1
    if x.exact == 0:
        return fmpq(side, 2)
    if abs(x.exact) == abs(y.exact):
        return fmpq(side, 4) if x.exact > 0 else fmpq(3 * side, 4)
    return None


def gamma(a: Ball) -> Ball:
    """Return the gamma function."""
    reason = messages.GAMMA_WHOLE_NUMBER_NOT
    if a.exact is not None:
        if a.exact.q == 1 and a.exact <= 0:
            return undefined(a.reason or reason)
        exact = _factorial(int(a.exact.p) - 1) if a.exact.q == 1 else None
        return made(arb.gamma_fmpq(a.exact), a, exact=exact)
    value = a.value.gamma()
    if not value.is_finite() and not bool(a.value > 0):
        return limited(made(whole_line(), a), Defined.MAYBE, reason, continuous=False)
    return made(value if value.is_finite() else whole_line(), a)


def digamma(a: Ball) -> Ball:
    """Return the digamma function."""
    reason = messages.DIGAMMA_WHOLE_NUMBER_NOT
    if a.exact is not None and a.exact.q == 1 and a.exact <= 0:
        return undefined(a.reason or reason)
    value = a.value.digamma()
    if not value.is_finite():
        return limited(made(whole_line(), a), Defined.MAYBE, reason, continuous=False)
    return made(value, a)


def _factorial(n: int) -> fmpq | None:
    # n! has fewer than n log2(n) binary figures.
    if n * max(n.bit_length(), 1) > WHOLE_BITS:
        return None
    return fmpq(flint.fmpz.fac_ui(n))


def _wholes(name: str, *sources: Ball) -> list[int] | Ball:
    """Return the whole numbers that balls are, or the ball of what is unknown or undefined."""
    reason = messages.NAME_NUMBER_NOT_WHOLE(name=name)
    for source in sources:
        if source.exact is not None and source.exact.q == 1:
            continue
        if source.defined is Defined.NO:
            return source
        if source.exact is not None or not source.value.contains_integer():
            return undefined(source.reason or reason)
    exact = [source.exact for source in sources]
    if all(value is not None for value in exact):
        return [int(value.p) for value in exact if value is not None]
    return limited(made(whole_line(), *sources), Defined.MAYBE, reason, continuous=False)


def factorial(a: Ball) -> Ball:
    """Return a! for a whole a >= 0."""
    if bool(a.value < 0):
        return undefined(a.reason or messages.FACTORIAL_NEGATIVE_NUMBER)
    result = _wholes("factorial", a)
    if isinstance(result, Ball):
        return result
    return made((a.value + 1).gamma(), a, exact=_factorial(result[0]))


def binomial(n: Ball, k: Ball) -> Ball:
    """Return the number of ways to take k of n things, for whole n >= 0 and whole k."""
    if bool(n.value < 0):
        return undefined(n.reason or messages.BINOMIAL_NEGATIVE_NUMBER)
    result = _wholes("binomial", n, k)
    if isinstance(result, Ball):
        return result
    things, taken = result
    taken = min(taken, things - taken)
    if taken < 0:
        return made(arb(0), n, k, exact=fmpq(0))
    if taken * max(things.bit_length(), 1) <= WHOLE_BITS:
        return made(arb(0), n, k, exact=fmpq(math.comb(things, taken)))
    value = (arb(things + 1).lgamma() - arb(taken + 1).lgamma()
             - arb(things - taken + 1).lgamma()).exp()  # fmt: skip
    return made(value, n, k)


def _of_wholes(name: str, function: Callable[[int, int], int]) -> Callable[[Ball, Ball], Ball]:
    def of_balls(a: Ball, b: Ball) -> Ball:
        result = _wholes(name, a, b)
        if isinstance(result, Ball):
            return result
        value = fmpq(function(*result))
        return made(arb(value), a, b, exact=value)

    return of_balls


common_divisor = _of_wholes("gcd", math.gcd)
common_multiple = _of_wholes("lcm", math.lcm)
