"""Values of expressions without a variable, in each arithmetic."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from fractions import Fraction

import numpy as np
from flint import acb

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.arithmetic.real_number import Parameters, ball_of
from axis_path.core.evaluate.backends.backends import (
    Proving,
    nearest_float,
)
from axis_path.core.evaluate.backends.complex import Complex
from axis_path.core.evaluate.expression import PROVING, Expression
from axis_path.core.evaluate.function import FAST, VALUE_BITS, Floats
from axis_path.core.evaluate.graph.graph import Op
from axis_path.core.evaluate.graph.program import (
    run,
    run_all,
)


def evaluate_constant(
    expression: Expression,
    parameters: Parameters,
    *,
    bits: int,
    inputs: Mapping[str, Ball] | None = None,
    wanted_bits: int | None = None,
) -> Ball:
    """Return the ball of an expression without a variable.

    Args:
        expression: what to compute.
        parameters: the values of the sliders.
        bits: the working precision.
        inputs: the elements of the lists that it runs over.
        wanted_bits: how many right bits its integrals need; None for as many as can be had.
    """
    with precision(bits):
        known = expression.known
        if known is not None:
            return ball.from_fraction(known)
    backend = PROVING if wanted_bits is None else Proving.with_integrals(wanted_bits)
    with precision(bits):
        used = {name: ball_of(parameters[name]) for name in expression.program.parameters}
        used |= dict(inputs or {})
        return run(expression.program, backend, ball.from_fraction(0), used)[0]


def evaluate_together(
    expressions: Sequence[Expression],
    parameters: Parameters,
    inputs: Mapping[str, Ball],
) -> list[Ball]:
    """Compute several expressions of one graph at once, at the present precision.

    Args:
        expressions: without a variable, at least one.
        parameters: the values of the sliders.
        inputs: what else they read by name.
    """
    first, *others = expressions
    program = first.together(*others)
    used = {name: ball_of(parameters[name]) for name in program.parameters}
    return run(program, PROVING, ball.from_fraction(0), used | dict(inputs))


def has_zero_to_the_zero(expression: Expression, parameters: Parameters) -> bool:
    """Check whether an expression without a variable takes 0^0 anywhere."""
    program = expression.program
    powers = [
        (step.arguments[0], step.arguments[-1])
        for step in program.steps
        if step.op == Op.POWER or (step.op == Op.INTEGER_POWER and step.payload == 0)
    ]
    if not powers or program.inputs:
        return False
    used = {name: ball_of(parameters[name]) for name in program.parameters}
    with precision(VALUE_BITS):
        values = run_all(program, PROVING, ball.from_fraction(0), used)
    return any(values[base].exact == 0 and values[last].exact == 0 for base, last in powers)


def evaluate_complex(expression: Expression, parameters: Parameters, *, bits: int) -> acb:
    """Return the complex ball of an expression without a variable; not finite without a value.

    Raises:
        NotHandledError: something in it takes no complex numbers.
    """
    backend = Complex()
    with precision(bits):
        used = {
            name: acb(ball_of(parameters[name]).value) for name in expression.program.parameters
        }
        return run(expression.program, backend, backend.number(Fraction(0)), used)[0]


def sample_inputs(
    expression: Expression, parameters: Parameters, inputs: Mapping[str, Floats]
) -> Floats:
    """Return the values of an expression over the elements of lists, (n,) floats or NaN."""
    used = {
        name: np.asarray(nearest_float(parameters[name])) for name in expression.program.parameters
    }
    shape = np.broadcast_shapes(*(np.shape(operand) for operand in inputs.values()))
    with np.errstate(all="ignore"):
        ys = run(expression.program, FAST, np.zeros(()), used | dict(inputs))[0]
        full = np.array(np.broadcast_to(ys, shape), dtype=np.float64)
    full[~np.isfinite(full)] = np.nan
    return full
