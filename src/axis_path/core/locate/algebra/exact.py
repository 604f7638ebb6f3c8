"""Recognise exact places: fractions and multiples of pi that are simple enough to be meant.

A candidate is only a guess; whoever asks proves it by putting it into the function.
"""

from __future__ import annotations

from fractions import Fraction

import numpy as np
from flint import arb, fmpq_poly, fmpz_mat
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, ball
from axis_path.core.arithmetic.conversion import (
    fraction_of,
    is_short,
    to_fraction,
    whole_number,
    written_fraction,
)
from axis_path.core.evaluate import multiple_of_pi
from axis_path.core.locate.algebra.compiled import holding_simple

Floats = NDArray[np.float64]

_LARGEST_DENOMINATOR = 1_000_000
_LARGEST_PI_DENOMINATOR = 720
#: Of a quadratic that is recognised; its zero must be known to so many binary digits.
_LARGEST_COEFFICIENT, _LATTICE_BITS = 10_000, 62


def simplest_between(low: Fraction, high: Fraction, largest: int) -> Fraction | None:
    """Return the fraction with the smallest denominator in [low, high].

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


def candidates(low: arb, high: arb) -> list[tuple[Ball, str]]:
    """Return simple numbers in [low, high], as exact balls with the way they are written."""
    pairs: list[tuple[Ball, str]] = []
    ends = fraction_of(low), fraction_of(high)
    if ends[0] is not None and ends[1] is not None:
        simple = simplest_between(ends[0], ends[1], _LARGEST_DENOMINATOR)
        text = None if simple is None else written_fraction(simple)
        if simple is not None and text is not None:
            pairs.append((ball.from_fraction(simple), text))
    turns = _turns_between(low, high)
    if turns is not None:
        pairs.append((ball.multiply(ball.from_fraction(turns), ball.pi()), multiple_of_pi(turns)))
    return pairs


def quadratic_at(abscissa: arb) -> fmpq_poly | None:
    """Return a quadratic with small whole coefficients that a number seems to be a zero of.

    Source: a short vector of the lattice of (a, b, c, N (a x^2 + b x + c)); Cohen, *A Course in
    Computational Algebraic Number Theory*, section 2.7.2.
    """
    if not bool(abscissa.rad() < arb(2) ** -_LATTICE_BITS * (abs(abscissa) + 1)):
        return None
    middle, scale = abscissa.mid(), arb(2) ** _LATTICE_BITS
    rows = []
    for power in range(3):
        scaled = whole_number((middle**power * scale).mid().floor())
        if scaled is None:
            return None
        rows.append([int(power == k) for k in range(3)] + [scaled])
    short = fmpz_mat(rows).lll()
    c, b, a = (short[0, k] for k in range(3))
    if not a or max(abs(coefficient) for coefficient in (a, b, c)) > _LARGEST_COEFFICIENT:
        return None
    residual = a * abscissa**2 + b * abscissa + c
    return fmpq_poly([c, b, a]) if bool(residual.contains(0)) else None


def quick_candidates(low: Floats, high: Floats) -> list[tuple[Ball, ...]]:
    """Return simple numbers in narrow brackets, [low, high], (n,) each.

    It runs in every frame, and most brackets hold none.
    """
    lists: list[tuple[Ball, ...]] = [()] * len(low)
    held = holding_simple(low, high, _LARGEST_DENOMINATOR, _LARGEST_PI_DENOMINATOR)
    for k, may_be_fraction, may_be_turns in zip(*(flags.tolist() for flags in held), strict=True):
        ends = float(low[k]), float(high[k])
        if may_be_fraction:
            simple = simplest_between(Fraction(ends[0]), Fraction(ends[1]), _LARGEST_DENOMINATOR)
            lists[k] = () if simple is None else (ball.from_fraction(simple),)
        turns = _turns_between(*map(arb, ends)) if may_be_turns else None
        if turns is not None:
            exact = ball.multiply(ball.from_fraction(turns), ball.pi())
            if bool(exact.value >= ends[0]) and bool(exact.value <= ends[1]):
                lists[k] += (exact,)
    return lists


def _turns_between(low: arb, high: arb) -> Fraction | None:
    """Return the simple fraction of pi, not 0, that lies between two numbers or beside them."""
    ratio = low.union(high) / arb.pi()
    least, greatest = fraction_of(ratio.lower()), fraction_of(ratio.upper())
    if least is None or greatest is None:
        return None
    turns = simplest_between(least, greatest, _LARGEST_PI_DENOMINATOR)
    return turns if turns and is_short(turns) else None


def written(abscissa: Ball) -> str | None:
    """Return the exact form that a ball carries, or None if there is none that can be shown."""
    if abscissa.exact is not None:
        return written_fraction(abscissa.exact)
    if abscissa.turns is not None and is_short(abscissa.turns):
        return multiple_of_pi(to_fraction(abscissa.turns))
    return None


def ball_of(exact: str | None, low: float, high: float) -> Ball:
    """Return the place of a finding: the number that its exact form is, if that is simple."""
    if exact is not None:
        for candidate, _ in candidates(arb(low), arb(high)):
            if written(candidate) == exact:
                return candidate
    return Ball(arb(low).union(arb(high)))
