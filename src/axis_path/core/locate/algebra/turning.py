"""Zeros of what is made of sines and cosines of multiples of one angle, also where it touches.

With t = tan(u/2) the sine of u is 2t/(1 + t^2) and its cosine (1 - t^2)/(1 + t^2), so that
3 sin(x) + 4 cos(x) - 5 is a quotient of polynomials in t. These have their zeros exactly, with
multiplicities; u = pi is where t goes beyond all bounds.

Source: the substitution of Weierstrass, in any text on integrals of rational functions of sine and
cosine.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from flint import arb, fmpq, fmpq_poly

from axis_path.core.arithmetic import Ball
from axis_path.core.arithmetic.conversion import whole_number
from axis_path.core.catalogue import DEGREE
from axis_path.core.evaluate import Expression, Multiple, Op, RealFunction
from axis_path.core.evaluate.graph.graph import Step
from axis_path.core.limits import MOST_FINDINGS
from axis_path.core.locate.algebra.polynomial import LARGEST_DEGREE, real_zeros
from axis_path.core.locate.algebra.rational import NoQuotientError, Quotient, quotient_in
from axis_path.core.locate.cells import Cell, Root, Search

_WAVES = frozenset({"sin", "cos", "tan", "cot", "sec", "csc"})
_CONSTANTS = {"pi": Multiple(Fraction(1), 1), DEGREE: Multiple(Fraction(1, 180), 1)}


@dataclass(frozen=True, slots=True)
class _Linear:
    """A linear function of x: ``slope * x + constant``, either of them 0 or known exactly."""

    slope: Multiple
    constant: Multiple


_NONE = Multiple(Fraction(0), 0)


def search_by_half_angle(
    function: RealFunction, factor: Expression, cells: Sequence[Cell]
) -> Search | None:
    """Return all zeros in cells of what is made of waves of commensurable frequencies.

    Args:
        function: it has the values of the sliders.
        factor: of its graph.
        cells: in order.

    Returns:
        None if it is not made so, or if there are too many.
    """
    waves = _waves(function, factor)
    base = _base([angle.slope for angle in waves.values()]) if waves else None
    if base is None:
        return None
    steps = factor.program.steps
    try:
        atoms = {k: _wave(steps[k].op, angle, base) for k, angle in waves.items()}
    except NoQuotientError:
        return None
    quotient = quotient_in(function, factor, atoms)
    if quotient is None:
        return None
    if quotient.top == 0:
        return Search(constant=list(cells))
    roots = _placed(_angles(quotient), _number(base), cells)
    return None if roots is None else Search(roots)


def half_angle_quotients(
    functions: Sequence[RealFunction], around: float
) -> tuple[list[Quotient], arb, int] | None:
    """Return functions as quotients of polynomials in t = tan((w x - q pi/2)/2).

    Args:
        functions: of one variable, with the sliders of the first.
        around: a place at which t is to be small.

    Returns:
        The quotients, w, and q; None if they are not all made of waves of one angle.
    """
    waves = [_waves(function, function.expression) for function in functions]
    slopes = [angle.slope for wave in waves for angle in wave.values()]
    base = _base(slopes) if slopes else None
    if base is None:
        return None
    width = _number(base)
    quarters = round(float(width) * around / (math.pi / 2))
    made: list[Quotient] = []
    for function, angles in zip(functions, waves, strict=True):
        steps = function.expression.program.steps
        try:
            atoms = {
                k: _wave(steps[k].op, _turned(angle, base, quarters), base)
                for k, angle in angles.items()
            }
        except NoQuotientError:
            return None
        quotient = quotient_in(function, function.expression, atoms)
        if quotient is None:
            return None
        made.append(quotient)
    return made, width, quarters


def _turned(angle: _Linear, base: Multiple, quarters: int) -> _Linear:
    """Return an angle n w x + c as a function of x less so many quarter turns of w x."""
    turns = Multiple(Fraction(quarters, 2) * (angle.slope.part / base.part), 1)
    constant = _added(angle.constant, turns)
    if constant is None:
        raise NoQuotientError
    return _Linear(angle.slope, constant)


def _angles(quotient: Quotient) -> list[tuple[arb, int]]:
    """Return where a quotient of polynomials in t is zero, as angles from -pi to pi, and orders."""
    turns = [(2 * zero.abscissa.atan(), zero.order) for zero in real_zeros(quotient.top)]
    far = int(quotient.bottom.degree() - quotient.top.degree())
    return [*turns, (arb.pi(), far)] if far > 0 else turns


def _placed(angles: list[tuple[arb, int]], base: arb, cells: Sequence[Cell]) -> list[Root] | None:
    """Return a root for each angle, and each whole turn, that may lie in a cell."""
    roots: list[Root] = []
    turn = 2 * arb.pi()
    for cell in cells:
        ends = [end * base for end in (cell.low.value.lower(), cell.high.value.upper())]
        low, high = sorted(ends, key=float)
        for angle, order in angles:
            first = whole_number(((low - angle) / turn).lower().ceil())
            last = whole_number(((high - angle) / turn).upper().floor())
            if (
                first is None
                or last is None
                or len(roots) + int(last - first) > MOST_FINDINGS.value
            ):
                return None
            abscissae = ((angle + n * turn) / base for n in range(int(first), int(last) + 1))
            roots += [Root(Ball(abscissa), proved=True, order=order) for abscissa in abscissae]
    return roots


def _number(value: Multiple) -> arb:
    return arb.pi() ** value.power * arb(fmpq(value.part.numerator, value.part.denominator))


def _waves(function: RealFunction, factor: Expression) -> dict[int, _Linear]:
    """Return which steps are waves, with their angles; none if an angle is not known."""
    linear: list[_Linear | None] = []
    waves: dict[int, _Linear] = {}
    for position, step in enumerate(factor.program.steps):
        given = [linear[argument] for argument in step.arguments]
        linear.append(_as_linear(function, step, given))
        if step.op in _WAVES and given[0] is not None and given[0].slope.part:
            waves[position] = given[0]
    return waves


def _as_linear(function: RealFunction, step: Step, given: list[_Linear | None]) -> _Linear | None:
    if step.op == Op.VARIABLE:
        return _Linear(Multiple(Fraction(1), 0), _NONE)
    if step.op == Op.NUMBER and isinstance(step.payload, Fraction):
        return _Linear(_NONE, Multiple(step.payload, 0))
    if step.op == Op.PARAMETER:
        value = function.parameters[str(step.payload)]
        return _Linear(_NONE, Multiple(value, 0)) if isinstance(value, Fraction) else None
    if step.op == Op.CONSTANT:
        known = _CONSTANTS.get(str(step.payload))
        return None if known is None else _Linear(_NONE, known)
    known_ones = [argument for argument in given if argument is not None]
    if not given or len(known_ones) < len(given):
        return None
    a, b = known_ones[0], known_ones[-1]
    if step.op == Op.NEGATIVE:
        return _scaled(a, Multiple(Fraction(-1), 0))
    if step.op in (Op.ADD, Op.SUBTRACT):
        sign = Multiple(Fraction(1 if step.op == Op.ADD else -1), 0)
        return _sum(a, _scaled(b, sign))
    if step.op == Op.MULTIPLY:
        for one, other in ((a, b), (b, a)):
            if not one.slope.part:
                return _scaled(other, one.constant)
    if step.op == Op.DIVIDE and not b.slope.part and b.constant.part:
        return _scaled(a, Multiple(1 / b.constant.part, -b.constant.power))
    return None


def _scaled(value: _Linear, by: Multiple) -> _Linear:
    slope, constant = (
        Multiple(factor.part * by.part, factor.power + by.power)
        for factor in (value.slope, value.constant)
    )
    return _Linear(slope, constant)


def _sum(a: _Linear, b: _Linear) -> _Linear | None:
    pairs = (a.slope, b.slope), (a.constant, b.constant)
    total = [_added(one, other) for one, other in pairs]
    return None if total[0] is None or total[1] is None else _Linear(total[0], total[1])


def _added(a: Multiple, b: Multiple) -> Multiple | None:
    if not a.part or not b.part:
        return a if a.part else b
    return Multiple(a.part + b.part, a.power) if a.power == b.power else None


def _base(slopes: list[Multiple]) -> Multiple | None:
    """Return the largest frequency of which all are whole multiples; None if there is none."""
    if len({slope.power for slope in slopes}) > 1:
        return None
    parts = [abs(slope.part) for slope in slopes]
    bottom = math.lcm(*(part.denominator for part in parts))
    top = math.gcd(*(int(part * bottom) for part in parts))
    return Multiple(Fraction(top, bottom), slopes[0].power)


def _wave(op: str, angle: _Linear, base: Multiple) -> Quotient:
    """Return a wave as a quotient of polynomials in t.

    Raises:
        NoQuotientError: its angle is shifted by something else than quarter turns, or its frequency
            is too large.
    """
    times = angle.slope.part / base.part
    quarters = _quarters(angle.constant)
    if abs(times) * 2 > LARGEST_DEGREE:
        raise NoQuotientError
    sine, cosine = _multiple_angle(int(times))
    for _ in range(quarters % 4):
        sine, cosine = cosine, -sine
    below = _power_of_circle(abs(int(times)))
    match op:
        case "sin":
            return Quotient.of(sine, below)
        case "cos":
            return Quotient.of(cosine, below)
        case "tan":
            return Quotient.of(sine, cosine)
        case "cot":
            return Quotient.of(cosine, sine)
        case "sec":
            return Quotient.of(below, cosine)
    return Quotient.of(below, sine)


def _quarters(constant: Multiple) -> int:
    if not constant.part:
        return 0
    if constant.power != 1 or (constant.part * 2).denominator != 1:
        raise NoQuotientError
    return int(constant.part * 2)


def _multiple_angle(times: int) -> tuple[fmpq_poly, fmpq_poly]:
    """Return (1 + t^2)^|n| times the sine and the cosine of n u: the parts of (1 + i t)^(2n)."""
    sine, cosine = fmpq_poly([0]), fmpq_poly([1])
    sign = 1 if times >= 0 else -1
    step = fmpq_poly([0, 1])
    for _ in range(2 * abs(times)):
        sine, cosine = sine + cosine * step, cosine - sine * step
    return sign * sine, cosine


def _power_of_circle(times: int) -> fmpq_poly:
    return fmpq_poly([1, 0, 1]) ** times
