"""Values of unknowns: known by an expression, or enclosed as narrowly as anyone wants."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache, partial

from flint import arb

from axis_path.core.arithmetic import Ball, precision
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.evaluate import VALUE_BITS, Expression, evaluate_constant
from axis_path.core.locate.sets.boxes import BoxSolution, BoxSystem
from axis_path.core.locate.sets.krawczyk import krawczyk

_ROUNDS = 60
#: So many binary digits more are computed with than are wanted.
_MORE_BITS = 48


@dataclass(frozen=True)
class SetValue:
    """The value of an unknown.

    Attributes:
        at_bits: computes it with so many binary digits.
        expression: it without a variable; None if it is only enclosed.
        proved: whether it is proved that it belongs to a solution.
    """

    at_bits: Callable[[int], Ball]
    expression: Expression | None = None
    proved: bool = True

    @property
    def ball(self) -> Ball:
        """Return it with the digits of a value that is shown."""
        return self.at_bits(VALUE_BITS)

    def bounds(self) -> tuple[float, float]:
        """Return floats between which it lies."""
        value = self.ball.value
        return float(value.lower()), float(value.upper())


def exact_value(expression: Expression, parameters: Parameters) -> SetValue:
    """Return a value that is known by an expression without a variable."""

    @lru_cache(maxsize=8)
    def at_bits(bits: int) -> Ball:
        return evaluate_constant(expression, parameters, bits=bits)

    return SetValue(at_bits, expression)


def dependent_value(
    expression: Expression, parameters: Parameters, inputs: Mapping[str, SetValue]
) -> SetValue:
    """Return a value that is computed from others, which are its inputs."""
    used = {name: inputs[name] for name in expression.program.inputs}
    if not used:
        return exact_value(expression, parameters)

    @lru_cache(maxsize=8)
    def at_bits(bits: int) -> Ball:
        given = {name: value.at_bits(bits + _MORE_BITS) for name, value in used.items()}
        return evaluate_constant(expression, parameters, bits=bits + _MORE_BITS, inputs=given)

    return SetValue(at_bits, None, all(value.proved for value in used.values()))


def enclosed_values(
    system: BoxSystem, solution: BoxSolution, inputs: Mapping[str, SetValue]
) -> dict[str, SetValue]:
    """Return the values of a solution that lies in a box, with any number of digits.

    Krawczyk's operator is applied with more and more digits; each step doubles those that are
    right.

    Args:
        system: what is zero there.
        solution: its box.
        inputs: the values of further inputs.
    """
    bounds = [
        _between(float(low), float(high))
        for low, high in zip(solution.low, solution.high, strict=True)
    ]
    if not solution.proved:
        return {
            name: SetValue(partial(_unproved, value), proved=False)
            for name, value in zip(system.names, bounds, strict=True)
        }

    @lru_cache(maxsize=8)
    def all_at_bits(bits: int) -> tuple[Ball, ...]:
        given = {name: inputs[name].at_bits(bits + _MORE_BITS) for name in system.known}
        values = bounds
        with precision(bits + _MORE_BITS):
            for _ in range(_ROUNDS):
                narrower = _step(system, values, given, bits + _MORE_BITS)
                if narrower is None:
                    break
                is_done = all(
                    2 * new.rad() >= old.rad() for new, old in zip(narrower, values, strict=True)
                )
                values = narrower
                if is_done:
                    break
        return tuple(map(Ball, values))

    def one_at_bits(k: int, bits: int) -> Ball:
        return all_at_bits(bits)[k]

    return {name: SetValue(partial(one_at_bits, k)) for k, name in enumerate(system.names)}


def _unproved(value: arb, _bits: int) -> Ball:
    return Ball(value)


def _between(low: float, high: float) -> arb:
    return arb(low).union(arb(high))


def _step(
    system: BoxSystem, values: Sequence[arb], given: Mapping[str, Ball], bits: int
) -> list[arb] | None:
    """Apply Krawczyk's operator once; None where it has no meaning."""
    middles = [value.mid() for value in values]
    at_middle = {name: Ball(value) for name, value in zip(system.names, middles, strict=True)}
    around = {name: Ball(value) for name, value in zip(system.names, values, strict=True)}
    f = [_at(gap, system, {**given, **at_middle}, bits) for gap in system.gaps]
    slopes = [_at(slope, system, {**given, **around}, bits) for slope in system.slopes]
    moved = krawczyk(values, f, slopes)
    if moved is None:
        return None
    narrower = []
    for value, new in zip(values, moved, strict=True):
        try:
            narrower.append(value.intersection(new))
        except ValueError:
            return None
    return narrower


def _at(
    expression: Expression, system: BoxSystem, inputs: Mapping[str, Ball], bits: int
) -> arb | None:
    used = {name: inputs[name] for name in expression.program.inputs}
    value = evaluate_constant(expression, system.parameters, bits=bits, inputs=used)
    return value.value if value.is_defined and value.value.is_finite() else None


#: A fraction with a larger denominator is no likelier than any other number.
_LARGEST_DENOMINATOR = 10_000


def simple_fraction(low: float, high: float) -> Fraction | None:
    """Return a fraction with a small denominator between two near floats; None if none is."""
    fraction = Fraction((low + high) / 2).limit_denominator(_LARGEST_DENOMINATOR)
    return fraction if Fraction(low) <= fraction <= Fraction(high) else None
