"""A fraction as a product of powers of primes.

Small factors are found at once; the rest in the worker of exact work, within its limits. What is
not factored in time stays one factor, and that is said.
"""

from __future__ import annotations

from concurrent.futures import TimeoutError as FutureTimeoutError
from fractions import Fraction

from flint import fmpz
from pebble import ProcessExpired

from axis_path.core.evaluate.exact.exact_pool import ExactForm, run_limited
from axis_path.core.limits import EXACT_TIME

#: Factors of so many binary digits are found at once.
_SMALL_BITS = 20
Factors = list[tuple[int, int]]


def _factored(number: int) -> Factors:
    """Return all prime factors with their powers; runs in the worker."""
    return [(int(prime), int(power)) for prime, power in fmpz(number).factor()]


def factored_form(value: Fraction) -> ExactForm:
    """Return a fraction as a product of powers of primes, in our language."""
    if value == 0:
        return ExactForm("0")
    note = ""
    texts = []
    for number in (abs(value.numerator), value.denominator):
        factors, rest = _in_time(number)
        texts.append(_product(factors, rest))
        if rest > 1:
            note = f"a factor of {len(str(rest)):,} digits could not be factored in time"
    top, bottom = texts
    sign = "-" if value < 0 else ""
    if value.denominator == 1:
        return ExactForm(f"{sign}{top}", note)
    inner = f"({bottom})" if "·" in bottom else bottom
    return ExactForm(f"{sign}{top}/{inner}", note)


def _in_time(number: int) -> tuple[Factors, int]:
    """Return the factors found in time, and what is left of the number, 1 if nothing is."""
    if number == 1:
        return [], 1
    found = [(int(prime), int(power)) for prime, power in fmpz(number).factor_smooth(_SMALL_BITS)]
    rest = 1
    sure: Factors = []
    for prime, power in found:
        if fmpz(prime).is_prime():
            sure.append((prime, power))
        else:
            rest *= prime**power
    if rest == 1:
        return sure, 1
    try:
        more = run_limited(_factored, rest, limit_ms=EXACT_TIME.value)
    except (FutureTimeoutError, MemoryError, ProcessExpired, RuntimeError):
        return sure, rest
    return sorted([*sure, *more]), 1


def _product(factors: Factors, rest: int) -> str:
    texts = [str(prime) if power == 1 else f"{prime}^{power}" for prime, power in factors]
    if rest > 1:
        texts.append(str(rest))
    return "·".join(texts) or "1"
