"""Throw lines of all sorts at the language: each is read or refused in time, and no more happens.

    PYTHONPATH=src .venv/bin/python -m tests.fuzz 1000000 [seed]

A line is a good one with its letters changed, a heap of tokens, deep nesting, or any characters at
all; it is defined in a study with others, typeset, printed, and its value computed. Prints what was
slowest. The tests run a short round of the same.
"""

from __future__ import annotations

import random
import resource
import sys
import time
from collections import Counter
from collections.abc import Iterator

import numpy as np

from axis_path.core import MathError, Study
from axis_path.core.deadline import Deadline, calculation, deadline_scope

_PLACES = np.linspace(-3, 3, 7)
GOOD = (
    "f(x) = x^2 - 3 for -2 <= x < 3", "g(x) = x for x < 0; 2x + 1 for 0 <= x < 2; 5 otherwise",
    "area(l, w) = l w", "P(t) = (cos(3t), sin(2t)) for 0 <= t <= 2pi", "r(theta) = 2 + 3sin(4theta)",
    "x^2 + y^2 = 36", "ring: 1 < x^2 + y^2 <= 9", "a = 2.5", "A = (a, f(a))", "L = [1, 4, 9]",
    "from -10 to 10 step 0.5", "M = from -4 to 4 in 100 points", "h(x) = f'(x) + f''(2)",
    "integral(f, 0, 2)", "sum(k^2, k, 1, 10)", "# any text", "sin^2 x + sin^-1 x", "5! + |x - 1|",
    "e^x + ln(x)/log(x, 2)", "polar(3, 4)", "√(2)x² ≤ 3", "z = (2 + 3i)^2", "binomial(5, 2) 30°",
    "B = [[1, 2], [3, 4]]", "B^-1 [1, 2]^T", "C = B with [1 to 2, all] = 0 and [2, 1] = 7", "|B| + B[2, last]",
    "list(k^2, k, 1, 9)[2 to last - 1]", "matrix(i/j, i, 1, 3, j, 1, 3) ∘ identity(3)", "eigenvalues(B)",
    "sd([1, 4, 9], population)", "solve([[2, 1], [1, 3]], [3, 5])", "conj(e^(i pi/3)) 20%", "factor(360)",
    "beside(B, [5, 6])", "random(2, 3)", "is_prime(2^31 - 1)", "null_space([[1, 2], [2, 4]])",
)  # fmt: skip
TOKENS = (
    *"xyafk0123456789.+-*/^()[]|,;:=<>!'°²√πθ∞ ", "sin", "cos", "ln", "sqrt", "for", "and", "otherwise",
    "from", "to", "step", "in", "points", "sum(", "integral(", "product(", "f(", "f'(", "<=", "rad", "e9",
    "factorial(", "gcd(", "mod(", "max(", "pi", "9^9^9^9", "10^10", "inf",
    "[[", "]]", "with", "last", "all", "^T", "^-1", "∘", "%", "i", "list(", "matrix(", "det(", "B", "L[", "factor(",
    "eigenvalues(", "sort(", "rref(", "random(",
)  # fmt: skip
NASTY = (
    "(" * 10_000, "(" * 90 + "x" + ")" * 90, "9^9^9^9", "factorial(10^9)", "from 0 to 10^12 step 1",
    "2^" * 500 + "2", "-" * 1_500 + "x", "x" * 1_000_000, "\ud800", "\0", "а + х", "ｓｉｎ x", "1e9999 x",
    "sum(k, k, 1, 10^9)", "product(k, k, 1, 10^5)", "1/(1/(1/" * 60, "|" * 999, "[" * 99 + "1" + "]" * 99,
    "f(f(f(f(x))))", "x'''''''''(2)", "9!!!!", "binomial(10^9, 5 10^8)", "gcd(10^300, 6^300)",
    "sum(" * 30 + "k" + ", k, 1, 9)" * 30, "integral(1/t, t, -1, 1)", "gamma(-10^9)", "10^10^10",
    "identity(1000)^-1", "matrix(1/(i + j), i, 1, 1000, j, 1, 1000)^-1", "list(k!, k, 1, 10^6)", "random(1000, 1000)",
    "factor(10^60 + 7)", "divisors(10^3000)", "next_prime(10^5000)", "eigenvalues(random(300, 300))",
    "[[2]]^(10^12)", "[[1, 1], [1, 0]]^(10^6)", "is_prime(10^9999 + 7)", "i^(10^10)", "sort(list(sin(k), k, 1, 10^6))",
    "det(matrix(x^(i j), i, 1, 60, j, 1, 60))", "permutations(10^9, 10^8)", "[" * 60 + "1" + "]" * 60,
    "[1, 2][" * 50 + "1" + "]" * 50, "A with [1] = " * 99 + "1", "quotient(10^9999, 3)",
)  # fmt: skip
#: Longer than this for one line is noted; the limits promise 100 ms for a refusal.
SLOW_MS = 100.0


def lines(count: int, seed: int) -> Iterator[str]:
    """Return lines, the nasty ones first."""
    drawn = random.Random(seed)  # noqa: S311 - a fixed seed is wanted
    yield from NASTY[:count]
    for _ in range(count - len(NASTY)):
        kind = drawn.random()
        if kind < 0.45:
            yield changed(drawn.choice(GOOD), drawn)
        elif kind < 0.9:
            yield "".join(drawn.choice(TOKENS) for _ in range(drawn.randrange(1, 25)))
        else:
            yield "".join(chr(drawn.randrange(1, 0x3000)) for _ in range(drawn.randrange(1, 20)))


def changed(text: str, drawn: random.Random) -> str:
    """Change, leave out, double or exchange some signs of a line."""
    signs = list(text)
    for _ in range(drawn.randrange(1, 4)):
        at = drawn.randrange(len(signs))
        match drawn.randrange(4):
            case 0:
                signs[at] = drawn.choice(TOKENS)
            case 1 if len(signs) > 1:
                del signs[at]
            case 2:
                signs.insert(at, signs[at])
            case _:
                other = drawn.randrange(len(signs))
                signs[at], signs[other] = signs[other], signs[at]
    return "".join(signs)


def attempt(text: str) -> str:
    """Do with a line what the Bench does; give the code of its error, or its kind.

    Raises:
        Exception: anything but an error in words; that is what this looks for.
    """
    with deadline_scope(Deadline(time.monotonic)):
        return _attempted(text)


def _attempted(text: str) -> str:
    study = Study()
    study.define("f(x) = x^2 + a")
    study.define("a = 2")
    study.write(9, text)
    made = study.snapshot.definition(9)
    if made.problem is not None:
        start, end = made.problem.position
        if not 0 <= start <= end <= len(text):
            raise AssertionError(f"the place {made.problem.position} lies outside the line")
        return made.problem.code
    made.latex, made.plain  # noqa: B018 - printing must not fail
    try:
        if made.kind in ("parameter", "point", "list", "matrix", "truth"):
            with calculation():
                study.value(made.name or "").decimal(10)
        elif made.kind == "function":
            study.function(made.name or "").sample_unrestricted(_PLACES)
            study.evaluate(f"{made.name}(1/3)").decimal(10)
    except MathError as err:
        return err.code
    return str(made.kind)


def fuzz(count: int, seed: int) -> tuple[Counter[str], list[tuple[float, str]]]:
    """Attempt so many lines; give what came out, and the slowest with their time in ms."""
    outcomes: Counter[str] = Counter()
    slowest: list[tuple[float, str]] = []
    for text in lines(count, seed):
        began = time.perf_counter()
        outcomes[attempt(text)] += 1
        taken = 1000 * (time.perf_counter() - began)
        if len(slowest) < 10 or taken > slowest[-1][0]:
            slowest = sorted([*slowest, (taken, text[:80])], reverse=True)[:10]
    return outcomes, slowest


def main() -> None:
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 10_000
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    began = time.perf_counter()
    outcomes, slowest = fuzz(count, seed)
    print(f"{count:,} lines in {time.perf_counter() - began:.0f} s, none broke anything")
    for outcome, times in outcomes.most_common():
        print(f"  {times:>8,} {outcome}")
    for taken, text in slowest:
        print(f"  {taken:8.1f} ms{' SLOW' if taken > SLOW_MS else ''}  {text!r}")
    print(f"memory at most {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:,.0f} MB")


if __name__ == "__main__":
    main()
