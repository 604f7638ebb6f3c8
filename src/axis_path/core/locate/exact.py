"""Recognise exact places: fractions and multiples of pi that are simple enough to be meant.

A candidate is only a guess; whoever asks proves it by putting it into the function.
"""

from __future__ import annotations

from fractions import Fraction

import numpy as np
from flint import arb, fmpq

from axis_path.core.arithmetic import Ball, ball
from axis_path.core.evaluate import multiple_of_pi
from axis_path.core.locate.compiled import may_hold_simple

_LARGEST_DENOMINATOR = 1_000_000
_LARGEST_PI_DENOMINATOR = 720


def simplest_between(low: Fraction, high: Fraction, largest: int) -> Fraction | None:
    """Give the fraction with the smallest denominator in [low, high].

    None if that denominator is larger than ``largest``.

    Source: Graham, Knuth, Patashnik, *Concrete Mathematics*, section 4.5 (Stern-Brocot tree).
    """
    if low <= 0 <= high:
        return Fraction(0)
    if high < 0:
        mirrored = simplest_between(-high, -low, largest)
        return None if mirrored is None else -mirrored
    # Whole numbers throughout: this runs for every zero of every frame.
    a, b, c, d = low.numerator, low.denominator, high.numerator, high.denominator
    p, q, p_before, q_before = 1, 0, 0, 1
    while q <= largest:
        whole = -(-a // b)
        if whole * d <= c:
            p, q = whole * p + p_before, whole * q + q_before
            return Fraction(p, q) if q <= largest else None
        whole -= 1
        p, q, p_before, q_before = whole * p + p_before, whole * q + q_before, p, q
        a, b, c, d = d, c - whole * d, b, a - whole * b
    return None


def as_fraction(value: arb) -> Fraction:
    """Give an exact number of the library as a fraction."""
    rational = value.fmpq()
    return Fraction(int(rational.p), int(rational.q))


def candidates(low: arb, high: arb) -> list[tuple[Ball, str]]:
    """Give simple numbers in [low, high], as exact balls with the way they are written."""
    found: list[tuple[Ball, str]] = []
    simple = simplest_between(as_fraction(low), as_fraction(high), _LARGEST_DENOMINATOR)
    if simple is not None:
        found.append((ball.from_fraction(simple), str(simple).replace("-", "−")))
    ratio = low.union(high) / arb.pi()
    ends = as_fraction(ratio.lower()), as_fraction(ratio.upper())
    turns = simplest_between(*ends, _LARGEST_PI_DENOMINATOR)
    if turns:
        exact = ball.multiply(ball.from_fraction(turns), ball.pi())
        found.append((exact, multiple_of_pi(turns)))
    return found


def quick_candidates(brackets: list[tuple[float, float]]) -> list[list[Ball]]:
    """Give simple numbers in each of some pairs of floats that are close to one another."""
    if not brackets:
        return []
    low, high = np.array(brackets).T.copy()
    # The quotients by the float that is nearest to pi are off by less than this part of them.
    room = 1e-15 * np.maximum(np.abs(low), np.abs(high))
    low_turns, high_turns = low / np.pi - room, high / np.pi + room
    may_be_fraction = may_hold_simple(low, high, _LARGEST_DENOMINATOR)
    may_be_turns = may_hold_simple(low_turns, high_turns, _LARGEST_PI_DENOMINATOR)
    found: list[list[Ball]] = [[] for _ in brackets]
    for k in np.flatnonzero(may_be_fraction).tolist():
        ends = Fraction(brackets[k][0]), Fraction(brackets[k][1])
        simple = simplest_between(*ends, _LARGEST_DENOMINATOR)
        if simple is not None:
            found[k].append(ball.from_fraction(simple))
    for k in np.flatnonzero(may_be_turns).tolist():
        ends = Fraction(float(low_turns[k])), Fraction(float(high_turns[k]))
        turns = simplest_between(*ends, _LARGEST_PI_DENOMINATOR)
        exact = ball.multiply(ball.from_fraction(turns or 0), ball.pi())
        if turns and bool(exact.value >= brackets[k][0]) and bool(exact.value <= brackets[k][1]):
            found[k].append(exact)
    return found


def written(place: Ball) -> str | None:
    """Write a ball that carries an exact form; None if it carries none."""
    if place.exact is not None:
        rational: fmpq = place.exact
        return str(Fraction(int(rational.p), int(rational.q))).replace("-", "−")
    if place.turns is not None:
        return multiple_of_pi(Fraction(int(place.turns.p), int(place.turns.q)))
    return None


def place_of(exact: str | None, low: float, high: float) -> Ball:
    """Give the place of a finding: the number that its exact form is, if that is simple."""
    if exact is not None:
        for candidate, _ in candidates(arb(low), arb(high)):
            if written(candidate) == exact:
                return candidate
    return Ball(arb(low).union(arb(high)))
