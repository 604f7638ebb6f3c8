"""School notation, and what it means; where it is refused, what its repair means."""

from __future__ import annotations

import math
import random
from collections.abc import Callable
from functools import partial

from axis_path.core import MathError, Study
from tests.core.guard.truths import Case, Verdict, is_close, value_of, weak, wrong

_MOST_REPAIRS = 3
#: What is typed, with a whole number K, and its value at x.
_BODIES: tuple[tuple[str, Callable[[float, int], float]], ...] = (
    ("sinx/x", lambda x, k: math.sin(x) / x), ("sin x/x", lambda x, k: math.sin(x) / x), ("sin Kx", lambda x, k: math.sin(k * x)),
    ("cos x/K", lambda x, k: math.cos(x / k)), ("ln x/x^K", lambda x, k: math.log(x) / x**k), ("cosx + sinx", lambda x, k: math.cos(x) + math.sin(x)),
    ("log_K x", lambda x, k: math.log(x) / math.log(k)), ("log_K(x)", lambda x, k: math.log(x) / math.log(k)), ("logK(x)", lambda x, k: math.log(x) / math.log(k)),
    ("log₂(x)", lambda x, k: math.log2(x)), ("lg x", lambda x, k: math.log10(x)), ("lg(Kx)", lambda x, k: math.log10(k * x)),
    ("Sin(x)", lambda x, k: math.sin(x)), ("K PI x", lambda x, k: k * math.pi * x), ("SQRT(x)", lambda x, k: math.sqrt(x)),
    ("½x", lambda x, k: x / 2), ("¾x^K", lambda x, k: 0.75 * x**k), ("³√x", lambda x, k: math.cbrt(x)), ("³√(x + K)", lambda x, k: math.cbrt(x + k)),
    ("∛x", lambda x, k: math.cbrt(x)), ("√x", lambda x, k: math.sqrt(x)), ("√(x + K)", lambda x, k: math.sqrt(x + k)), ("K√x", lambda x, k: k * math.sqrt(x)),
    ("x**K", lambda x, k: x**k), ("K**x", lambda x, k: k**x), ("⌊x⌋", lambda x, k: math.floor(x)), ("⌈Kx⌉", lambda x, k: math.ceil(k * x)),
    ("|x - K|", lambda x, k: abs(x - k)), ("x²", lambda x, k: x * x), ("Kx³", lambda x, k: k * x**3), ("x⁻²", lambda x, k: x**-2),
    ("sin²(x)", lambda x, k: math.sin(x) ** 2), ("cos^2(Kx)", lambda x, k: math.cos(k * x) ** 2), ("sin^-1(x/9)", lambda x, k: math.asin(x / 9)),
    ("K·x", lambda x, k: k * x), ("K×x", lambda x, k: k * x), ("x÷K", lambda x, k: x / k), ("x − K", lambda x, k: x - k),
    ("x^2 if x > 0", lambda x, k: x * x), ("K(x + 1)(x - 1)", lambda x, k: k * (x * x - 1)), ("(x + 1)x", lambda x, k: (x + 1) * x),
    ("Kxx", lambda x, k: k * x * x), ("-x^2", lambda x, k: -x * x), ("2^-x", lambda x, k: 2**-x), ("x^2^K", lambda x, k: x ** (2**k)),
    ("K|x|", lambda x, k: k * abs(x)), ("e^(-x)", lambda x, k: math.exp(-x)), ("π x", lambda x, k: math.pi * x),
)  # fmt: skip
_HEADS = ("f(x) = {}", "f(x) := {}", "f(x)={}", "y = {}")


def body(drawn: random.Random) -> Case:
    """Return a function in school notation."""
    form, value = drawn.choice(_BODIES)
    head = drawn.choice(_HEADS)
    k = drawn.choice((2, 3))
    x = drawn.choice((0.75, 1.5, 2.25, 4.5))
    line = head.format(form.replace("K", str(k)))
    return Case(line, "reading", partial(_judge, line, x, value(x, k)))


def _judge(line: str, x: float, truth: float) -> Verdict:
    study = Study()
    for _ in range(_MOST_REPAIRS):
        try:
            definition = study.define(line)
            if definition.problem is not None:
                raise definition.problem
            break
        except MathError as err:
            # A line that is refused or has no value must come with a repair that is right.
            study = Study()
            if err.repair is None:
                return weak(f"refused without a repair: {err.message}")
            start, stop = err.repair.position
            line = f"{line[:start]}{err.repair.text}{line[stop:]}"
    else:
        return weak(f"still refused: {line}")
    called = definition.name or "y"
    found = value_of(study.evaluate(f"{called}({x})"))
    if not is_close(found, truth):
        return wrong(f"{line} is {found} at {x}, in truth {truth}")
    return weak("")
