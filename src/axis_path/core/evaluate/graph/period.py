"""A period of an expression, read off its operations.

Sine, cosine and tangent of w t + c have the period 2 pi/|w|. What is made of such parts by
operations that do not see t itself has every period that they share: the least common multiple of
theirs, which exists if their frequencies are commensurable. A frequency is known exactly if it is a
fraction, or a fraction times pi (as in a study that measures in degrees).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.arithmetic.conversion import is_short
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.catalogue import DEGREE
from axis_path.core.evaluate.graph.graph import Op, Step
from axis_path.core.evaluate.graph.program import Program

#: The functions of an angle.
WAVES = frozenset({"sin", "cos", "tan", "cot", "sec", "csc"})
_HALFWAVES = frozenset({"tan", "cot"})
_SUMS = frozenset({Op.ADD, Op.SUBTRACT})
#: These look at the variable itself, or at more than the values of their arguments.
_OPAQUE = frozenset({Op.INPUT, Op.OVER})
#: Frequencies with longer fractions than this have no period that anybody would draw.
_LONGEST_DENOMINATOR = 1_000_000


@dataclass(frozen=True, slots=True)
class Multiple:
    """A fraction of a power of pi: ``part * pi ** power``."""

    part: Fraction
    power: int


@dataclass(frozen=True, slots=True)
class _Part:
    """What is known of a step as a function of t.

    Attributes:
        slope: it is ``slope * t`` and a constant; None if it is not linear.
        constant: its value, if it does not depend on t and is known.
        waves: the frequencies of a step that depends on t through waves only; empty for a constant.
    """

    slope: Multiple | None = None
    constant: Multiple | None = None
    waves: frozenset[Multiple] | None = None


_UNKNOWN = _Part()
_STEADY = _Part(waves=frozenset())


def period(program: Program, parameters: Parameters | None) -> Multiple | None:
    """Return a period that all results of a program share; None if none is known or all are fixed.

    Args:
        program: its variable is t.
        parameters: the values of the sliders; None for a period that holds for all of them.
    """
    parts: list[_Part] = []
    for step in program.steps:
        parts.append(_part(step, [parts[position] for position in step.arguments], parameters))
    waves = [parts[position].waves for position in program.results]
    if any(wave is None for wave in waves):
        return None
    return common_period(frozenset[Multiple]().union(*(wave for wave in waves if wave is not None)))


def common_period(frequencies: frozenset[Multiple]) -> Multiple | None:
    """Return the least period of waves with some frequencies together; None if there is none."""
    if not frequencies or len({frequency.power for frequency in frequencies}) > 1:
        return None
    parts = [abs(frequency.part) for frequency in frequencies]
    if max(part.denominator for part in parts) > _LONGEST_DENOMINATOR:
        return None
    # The least common multiple of 1/w over all w.
    top = math.lcm(*(part.denominator for part in parts))
    bottom = math.gcd(*(part.numerator for part in parts))
    power = next(iter(frequencies)).power
    part = Fraction(2 * top, bottom)
    return Multiple(part, 1 - power) if is_short(part) else None


def _part(step: Step, inputs: list[_Part], parameters: Parameters | None) -> _Part:
    if step.op == Op.VARIABLE:
        return _Part(slope=Multiple(Fraction(1), 0))
    if not inputs:
        return _leaf(step, parameters)
    if step.op in _OPAQUE:
        return _UNKNOWN
    linear = _linear(step, inputs)
    if linear is not None:
        return linear
    if step.op in WAVES and inputs[0].slope is not None:
        # The tangent and its reciprocal come back after half a turn.
        halves = 2 if step.op in _HALFWAVES else 1
        return _Part(
            waves=frozenset({Multiple(inputs[0].slope.part * halves, inputs[0].slope.power)})
        )
    waves = [operand.waves for operand in inputs]
    if any(wave is None for wave in waves):
        return _UNKNOWN
    return _Part(waves=frozenset[Multiple]().union(*(wave for wave in waves if wave is not None)))


def _leaf(step: Step, parameters: Parameters | None) -> _Part:
    if step.op == Op.NUMBER and isinstance(step.payload, Fraction):
        return _Part(constant=Multiple(step.payload, 0), waves=frozenset())
    if step.op == Op.PARAMETER and parameters is None:
        return _STEADY
    if step.op == Op.PARAMETER and parameters is not None:
        value = parameters[str(step.payload)]
        if not isinstance(value, Fraction):
            return _STEADY
        return _Part(constant=Multiple(value, 0), waves=frozenset())
    if step.op == Op.CONSTANT:
        known = {"pi": Multiple(Fraction(1), 1), DEGREE: Multiple(Fraction(1, 180), 1)}
        return _Part(constant=known.get(str(step.payload)), waves=frozenset())
    return _UNKNOWN


def _linear(step: Step, inputs: list[_Part]) -> _Part | None:
    """Follow linear functions of t, and constants; None for any other step."""
    a, b = inputs[0], inputs[-1]
    if step.op == Op.NEGATIVE and (a.slope or a.constant):
        return _Part(_scaled(a.slope, -1), _scaled(a.constant, -1), a.waves)
    if step.op in _SUMS:
        return _sum(a, b, -1 if step.op == Op.SUBTRACT else 1)
    if step.op == Op.MULTIPLY:
        for one, other in ((a, b), (b, a)):
            if one.constant is not None and (other.slope or other.constant):
                return _times(other, one.constant)
    if (
        step.op == Op.DIVIDE
        and b.constant is not None
        and b.constant.part
        and (a.slope or a.constant)
    ):
        return _times(a, Multiple(1 / b.constant.part, -b.constant.power))
    return None


def _sum(a: _Part, b: _Part, sign: int) -> _Part | None:
    if a.slope is not None and b.slope is not None:
        slope = _added(a.slope, _scaled(b.slope, sign))
        # What cancels leaves a constant.
        return None if slope is None else _Part(slope) if slope.part else _STEADY
    steady = {id(argument) for argument in (a, b) if argument.waves == frozenset()}
    if a.slope is not None and id(b) in steady:
        return _Part(a.slope)
    if b.slope is not None and id(a) in steady:
        return _Part(_scaled(b.slope, sign))
    if a.constant is not None and b.constant is not None:
        return _Part(constant=_added(a.constant, _scaled(b.constant, sign)), waves=frozenset())
    return None


def _added(a: Multiple, b: Multiple | None) -> Multiple | None:
    if b is None or a.power != b.power:
        return None
    return Multiple(a.part + b.part, a.power)


def _scaled(a: Multiple | None, by: int) -> Multiple | None:
    return None if a is None else Multiple(a.part * by, a.power)


def _times(a: _Part, by: Multiple) -> _Part:
    def product(multiple: Multiple | None) -> Multiple | None:
        return (
            None
            if multiple is None
            else Multiple(multiple.part * by.part, multiple.power + by.power)
        )

    slope = product(a.slope)
    if slope is not None and not slope.part:
        return _STEADY
    return _Part(slope, product(a.constant), a.waves)
