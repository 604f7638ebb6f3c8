"""Two ways to write one function: what is complete of both must be the same."""

from __future__ import annotations

import random
from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import partial
from typing import NamedTuple

from axis_path.core import Finding, Findings
from tests.core.guard.forms import Formed, formed
from tests.core.guard.ordinary import ORDINARY, moved
from tests.core.guard.truths import Case, Verdict, findings, is_close, weak, wrong


class _Change(NamedTuple):
    """A change of a function f, with F for its expression, and what becomes of values by it."""

    text: str
    of_value: Callable[[float], float]


_CHANGES = (
    _Change("3(F)", lambda y: 3 * y), _Change("(F)/e", lambda y: y / 2.718281828459045), _Change("(F) + 0 e", lambda y: y),
    _Change("10^(-12)(F)", lambda y: 1e-12 * y), _Change("sqrt(2)(F)", lambda y: 2**0.5 * y), _Change("(F)*1", lambda y: y),
    _Change("(F) + pi - pi", lambda y: y), _Change("F for x < 10^6", lambda y: y), _Change("(F)(2 - 1)", lambda y: y),
)  # fmt: skip


def changed(drawn: random.Random) -> Case:
    """Return a form with what is the same function, but for a positive factor."""
    it = formed(drawn)
    change = drawn.choice(_CHANGES)
    other = replace(it, body=change.text.replace("F", it.body))
    return _case(it, other, 0.0, change.of_value)


def shifted(drawn: random.Random) -> Case:
    """Return a form with the same one farther along."""
    it = formed(drawn)
    abscissa, by = drawn.choice((("3", 3.0), ("1/7", 1 / 7), ("pi", 3.141592653589793)))
    # The names of functions hold no x as a letter by itself.
    body = _moved_body(it.body, abscissa)
    other = replace(it, body=body, ends=(it.ends[0] + by, it.ends[1] + by))
    return _case(it, other, by, lambda y: y)


def _moved_body(body: str, abscissa: str) -> str:
    letters = [
        f"(x - {abscissa})"
        if letter == "x"
        and not body[max(k - 1, 0) : k].isalpha()
        and not body[k + 1 : k + 2].isalpha()
        else letter
        for k, letter in enumerate(body)
    ]
    return "".join(letters)


_SIZES = ("|G|", "max(G, -(G))", "sqrt((G)^2)", "sqrt(|G|)^2", "(G) sign(G)", "||G||")


def sized(drawn: random.Random) -> Case:
    """Return two ways to write |g|."""
    g = drawn.choice(ORDINARY)
    inner, shift = moved(g, drawn)
    inner = inner.replace("T ", "")
    one, other = (form.replace("G", inner) for form in drawn.sample(_SIZES, 2))
    question = drawn.choice(("zeros", "extrema", "breaks"))
    it = Formed(one, question, (g.low + shift, g.high + shift), (), in_degrees=False)
    return _case(it, replace(it, body=other), 0.0, lambda y: y)


def _case(one: Formed, other: Formed, by: float, of_value: Callable[[float], float]) -> Case:
    text = f"{one.body} against {other.body}"
    return Case(text, f"two {one.question}", partial(_judge, one, other, by, of_value))


def _judge(one: Formed, other: Formed, by: float, of_value: Callable[[float], float]) -> Verdict:
    first, second = (
        findings(f"f(x) = {case.body}", case.question, case.ends, in_degrees=case.in_degrees)
        for case in (one, other)
    )
    if not (first.complete and second.complete):
        return weak("" if first.complete == second.complete else "only one of both is complete")
    pairs = _inner(first, one.ends), _inner(second, other.ends)
    if len(pairs[0]) != len(pairs[1]):
        return wrong(f"{_plain(pairs[0])} against {_plain(pairs[1])}")
    for a, b in zip(*pairs, strict=True):
        is_same = a.kind == b.kind and is_close(a.x + by, b.x)
        if is_same and a.y == a.y and b.y == b.y:
            is_same = abs(of_value(a.y) - b.y) <= 1e-8 * max(abs(b.y), 1e-300)
        if not is_same or a.is_global != b.is_global:
            return wrong(f"{_plain([a])} against {_plain([b])}")
    return weak("")


def _inner(found: Findings, ends: tuple[float, float]) -> Sequence[Finding]:
    return [
        item for item in found if not item.at_end and not any(is_close(item.x, end) for end in ends)
    ]


def _plain(items: Sequence[Finding]) -> list[tuple[str, float, float]]:
    return [(item.kind.value, item.x, item.y) for item in items]
