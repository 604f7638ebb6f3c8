"""Whether a constant expression is 0: by its digits if it is not, by its exact form if it is."""

from __future__ import annotations

from axis_path.core.arithmetic.precision import precision
from axis_path.core.errors import MathError, NotHandledError
from axis_path.core.evaluate.backends.complex import is_finite
from axis_path.core.evaluate.constants import evaluate_complex
from axis_path.core.evaluate.exact.exact_pool import exact_form
from axis_path.core.evaluate.expression import Expression
from axis_path.core.evaluate.graph.graph import Graph, Op

_BITS = (128, 1_024)
_NOT_DECIDED = "It could not be decided whether a number in it is 0."


def is_zero(graph: Graph, step: int) -> bool:
    """Check whether a step of a graph is 0.

    Raises:
        NotHandledError: it depends on something, or that cannot be decided.
    """
    expression = Expression(graph, step)
    program = expression.program
    if expression.known is not None:
        return expression.known == 0
    if program.parameters or program.inputs or any(s.op == Op.VARIABLE for s in program.steps):
        raise NotHandledError(_NOT_DECIDED)
    for bits in _BITS:
        try:
            value = evaluate_complex(expression, {}, bits=bits)
        except MathError:
            break
        with precision(bits):
            if not is_finite(value):
                break
            if not value.contains(0):
                return False
    if exact_form(program, {}).text == "0":
        return True
    raise NotHandledError(_NOT_DECIDED)
