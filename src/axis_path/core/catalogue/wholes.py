"""Functions of whole numbers that look at the number itself: primes, divisors, counting."""

from __future__ import annotations

from typing import Any

from flint import fmpz

from axis_path.core.arithmetic import ball
from axis_path.core.arithmetic.arrays.array import Array, vector
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.catalogue.entry import Argument, Arrays, FunctionEntry, Group, ValueKind
from axis_path.core.catalogue.unit_rules import RATIO
from axis_path.core.errors import LimitError, ListError
from axis_path.core.limits import DIVISORS, FACTORED_DIGITS, PRIME_DIGITS

_WHOLE = (Argument("n", "a whole number"),)
NUMBER, LIST, TRUTH = ValueKind.NUMBER, ValueKind.LIST, ValueKind.TRUTH


def whole(number: Any, what: str, least: int | None = None) -> fmpz:  # noqa: ANN401 - any value
    """Return a proved number as a whole one.

    Raises:
        ListError: it is none, or too small.
    """
    is_whole = isinstance(number, Ball) and number.exact is not None and number.exact.q == 1
    if not is_whole or (least is not None and number.exact.p < least):
        more = "" if least is None else f" of at least {least}"
        raise ListError(f"{what} needs a whole number{more}.")
    result: fmpz = number.exact.p
    return result


def _limited(number: fmpz, digits: int, what: str) -> fmpz:
    if abs(number) >= fmpz(10) ** digits:
        raise LimitError(f"{what} takes whole numbers of up to {digits:,} digits.")
    return number


def is_prime(n: Ball) -> bool:
    """Check whether a whole number is prime; proved."""
    number = whole(n, "`is_prime`")
    return bool(number > 1 and _limited(number, PRIME_DIGITS.value, "`is_prime`").is_prime())


def next_prime(n: Ball) -> Ball:
    """Return the least prime above a whole number."""
    number = _limited(whole(n, "`next_prime`"), PRIME_DIGITS.value, "`next_prime`")
    number = max(number, fmpz(1)) + 1
    while not number.is_prime():
        number += 1
    return ball.from_fraction(int(number))


def divisors(n: Ball) -> Array[Ball]:
    """Return all positive divisors of a whole number, in order.

    Raises:
        ListError: it is 0. LimitError: there are too many, or it is too long to be factored.
    """
    number = abs(whole(n, "`divisors`"))
    if number == 0:
        raise ListError("Every number divides 0.")
    _limited(number, FACTORED_DIGITS.value, "`divisors`")
    found = [fmpz(1)]
    for prime, power in number.factor():
        found = [one * prime**k for one in found for k in range(int(power) + 1)]
        if len(found) > DIVISORS.value:
            raise LimitError(f"There are more than {DIVISORS.value:,} divisors.")
    return vector([ball.from_fraction(int(one)) for one in sorted(found)])


def factor(n: Ball) -> Ball:
    """Return a fraction unchanged: its factors are its exact form.

    Raises:
        ListError: it is none, or 0.
    """
    if not isinstance(n, Ball) or n.exact is None:
        raise ListError("`factor` needs a whole number or a fraction.")
    to_fraction(n.exact)
    return n


NUMBERS = (
    FunctionEntry(
        name="factor",
        group=Group.WHOLE,
        arguments=_WHOLE,
        meaning="a whole number, or a fraction, as a product of powers of primes",
        defined="for every fraction",
        returns="the number, written as that product",
        example="factor(360)",
        arrays=Arrays(NUMBER, ("number",), proving=factor),
    ),
    FunctionEntry(
        name="is_prime",
        group=Group.WHOLE,
        arguments=_WHOLE,
        meaning="whether a whole number is prime; proved",
        defined="for whole numbers",
        returns="true or false",
        example="is_prime(97)",
        arrays=Arrays(TRUTH, ("number",), proving=is_prime),
    ),
    FunctionEntry(
        name="next_prime",
        group=Group.WHOLE,
        arguments=_WHOLE,
        meaning="the least prime above n",
        defined="for whole numbers",
        returns="a prime",
        example="next_prime(100)",
        arrays=Arrays(NUMBER, ("number",), proving=next_prime),
    ),
    FunctionEntry(
        name="divisors",
        group=Group.WHOLE,
        arguments=_WHOLE,
        meaning="all positive divisors, in order",
        defined="for whole numbers except 0",
        returns="a list",
        example="divisors(12)",
        arrays=Arrays(LIST, ("number",), proving=divisors),
    ),
    FunctionEntry(
        name="permutations",
        group=Group.WHOLE,
        arguments=(
            Argument("n", "how many there are"),
            Argument("k", "how many are put in order; all if it is left out", is_optional=True),
        ),
        meaning="in how many orders k of n things can be taken",
        defined="for whole n, k ≥ 0; 0 if k > n",
        returns="a whole number",
        example="permutations(5, 2)",
        expansion={1: "factorial(u)", 2: "binomial(u, v) factorial(v)"},
        rough=None,
    ),
    FunctionEntry(
        name="quotient",
        units=RATIO,
        group=Group.STEPS,
        arguments=(Argument("x", "a number"), Argument("y", "by what it is divided")),
        meaning="how often y goes into x as a whole: floor(x/y)",
        defined="for y ≠ 0",
        returns="a whole number",
        example="quotient(17, 5)",
        expansion={2: "floor(u/v)"},
    ),
)
