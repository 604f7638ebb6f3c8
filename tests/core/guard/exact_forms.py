"""Exact forms as a textbook prints them, with their values to 40 digits."""

from __future__ import annotations

import random
from collections.abc import Callable
from fractions import Fraction
from functools import partial
from math import isqrt
from typing import Any

import mpmath

from axis_path.core import Study
from tests.core.guard.truths import Case, Verdict, weak, wrong

_DIGITS = 40
_M = mpmath


def root_text(n: int) -> str:
    """Return the square root of a whole number in lowest terms, ``6√2``."""
    outside = next(k for k in range(isqrt(n), 0, -1) if n % (k * k) == 0)
    inside = n // (outside * outside)
    if inside == 1:
        return str(outside)
    return f"{'' if outside == 1 else outside}√{inside}"


def _sum_of_roots(a: int, b: int) -> str:
    return f"√{min(a, b)} + √{max(a, b)}"


def _fraction(value: Fraction) -> str:
    return str(value)


_Rows = tuple[tuple[str, Callable[[int, int], Any], Callable[[int, int], str] | None], ...]
#: What is typed, with whole numbers a and b; its value; and its exact form, None if only the value
#: is checked. a and b are different primes.
_FORMS: _Rows = (
    ("sqrt(A^2 B)", lambda a, b: a * _M.sqrt(b), lambda a, b: root_text(a * a * b)),
    ("1/sqrt(B)", lambda a, b: 1 / _M.sqrt(b), lambda a, b: f"√{b}/{b}"),
    ("sqrt(A) sqrt(B)", lambda a, b: _M.sqrt(a * b), lambda a, b: f"√{a * b}"),
    ("sqrt(A + B + 2sqrt(A B))", lambda a, b: _M.sqrt(a) + _M.sqrt(b), _sum_of_roots),
    ("A/B + B/A", lambda a, b: _M.mpf(a) / b + _M.mpf(b) / a, lambda a, b: _fraction(Fraction(a, b) + Fraction(b, a))),
    ("(A + B i)(A - B i)", lambda a, b: _M.mpc(a * a + b * b), lambda a, b: str(a * a + b * b)),
    ("(A + i)^2", lambda a, b: _M.mpc(a, 1) ** 2, lambda a, b: f"{a * a - 1} + {2 * a}i"),
    ("log(A B) - log(B)", lambda a, b: _M.log10(a), None),
    ("log(10^A) + log(B) - log(B)", lambda a, b: _M.mpf(a), lambda a, b: str(a)),
    ("log(2^A) + log(5^A)", lambda a, b: _M.mpf(a), lambda a, b: str(a)),
    ("log(4*A) + log(25*A) - 2log(A)", lambda a, b: _M.mpf(2), lambda a, b: "2"),
    ("ln(A^B)/ln(A)", lambda a, b: _M.mpf(b), lambda a, b: str(b)),
    ("ln(A) + ln(B)", lambda a, b: _M.log(a * b), None),
    ("e^(ln(A) + ln(B))", lambda a, b: _M.mpf(a * b), lambda a, b: str(a * b)),
    ("e^A e^(-A - 1)", lambda a, b: 1 / _M.e, lambda a, b: "1/e"),
    ("ln(e^A/e^B)", lambda a, b: _M.mpf(a - b), lambda a, b: str(a - b)),
    ("sinh(ln(A))", lambda a, b: _M.sinh(_M.log(a)), lambda a, b: _fraction(Fraction(a * a - 1, 2 * a))),
    ("cosh(ln(A/B))", lambda a, b: _M.cosh(_M.log(_M.mpf(a) / b)), lambda a, b: _fraction(Fraction(a * a + b * b, 2 * a * b))),
    ("tanh(ln(A))", lambda a, b: _M.tanh(_M.log(a)), lambda a, b: _fraction(Fraction(a * a - 1, a * a + 1))),
    ("sin(2atan(A/B))", lambda a, b: _M.sin(2 * _M.atan(_M.mpf(a) / b)), lambda a, b: _fraction(Fraction(2 * a * b, a * a + b * b))),
    ("cos(2atan(A/B))", lambda a, b: _M.cos(2 * _M.atan(_M.mpf(a) / b)), lambda a, b: _fraction(Fraction(b * b - a * a, a * a + b * b))),
    ("tan(atan(A/B) + pi/4)", lambda a, b: _M.tan(_M.atan(_M.mpf(a) / b) + _M.pi / 4), lambda a, b: _fraction(Fraction(a + b, b - a))),
    ("cos(asin(1/A))", lambda a, b: _M.cos(_M.asin(_M.mpf(1) / a)), None),
    ("A^(1/2) A^(3/2)", lambda a, b: _M.mpf(a * a), lambda a, b: str(a * a)),
    ("(A^3)^(2/3)", lambda a, b: _M.mpf(a * a), lambda a, b: str(a * a)),
    ("cbrt(A^3 B^6)", lambda a, b: _M.mpf(a * b * b), lambda a, b: str(a * b * b)),
    ("pi/A + pi/B", lambda a, b: _M.pi / a + _M.pi / b, lambda a, b: f"{a + b}π/{a * b}"),
    ("sin(pi/A)^2 + cos(pi/A)^2", lambda a, b: _M.mpf(1), lambda a, b: "1"),
    ("(1 + sqrt(B))/(1 - sqrt(B))", lambda a, b: (1 + _M.sqrt(b)) / (1 - _M.sqrt(b)), None),
    ("sqrt(B)/A + 1/A", lambda a, b: (1 + _M.sqrt(b)) / a, lambda a, b: f"(1 + √{b})/{a}"),
    ("sin(7pi/12)", lambda a, b: _M.sin(7 * _M.pi / 12), lambda a, b: "(√6 + √2)/4"),
    ("cos(A pi/5)", lambda a, b: _M.cos(a * _M.pi / 5), None),
    ("tan(A pi/12)", lambda a, b: _M.tan(a * _M.pi / 12), None),
    ("sin(A pi/8)", lambda a, b: _M.sin(a * _M.pi / 8), None),
    ("asin(sqrt(3)/2) + A pi", lambda a, b: _M.pi / 3 + a * _M.pi, lambda a, b: f"{3 * a + 1}π/3"),
)  # fmt: skip
_PRIMES = (2, 3, 5, 7, 11)


def exact(drawn: random.Random) -> Case:
    """Return an expression with a value that has an exact form."""
    form, value, expected = drawn.choice(_FORMS)
    a, b = drawn.sample(_PRIMES, 2)
    text = form.replace("A", str(a)).replace("B", f"({b})")
    return Case(text, "exact", partial(_judge, text, value(a, b), expected and expected(a, b)))


def _judge(text: str, truth: Any, expected: str | None) -> Verdict:
    study = Study()
    result = study.evaluate(text)
    if not _agrees(result, truth):
        return wrong(f"the value is {result.decimal(_DIGITS)}, in truth {truth}")
    if result.exact is None:
        return weak("no exact form") if expected else weak("")
    if not _agrees(study.evaluate(result.exact), truth):
        return wrong(f"{result.exact} is not the value")
    if expected is not None and result.exact != expected:
        return weak(f"{result.exact} and not {expected}")
    return weak("")


def _agrees(result: Any, truth: Any) -> bool:
    said = _number(result.decimal(_DIGITS))
    return bool(abs(said - truth) <= _M.mpf(10) ** (2 - _DIGITS) * max(1, abs(truth)))


def _number(decimal: str) -> Any:
    """Return the number that a decimal, or two with i, stand for."""
    text = decimal.replace("−", "-").replace(" ", "")
    if not text.endswith("i"):
        return _M.mpf(text)
    cut = max(text.rfind("+"), text.rfind("-"))
    return _M.mpc(text[:cut] or 0, text[cut:-1] or 0)
