"""All complex solutions of a polynomial equation, proved.

The polynomial is factored over the fractions, which shows how often each solution counts; the roots
of each factor are isolated and refined by FLINT.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache

from flint import acb, fmpq_poly

from axis_path.core.arithmetic import precision
from axis_path.core.arithmetic.arrays.eigenvalues import polynomial_roots, surd_in_field
from axis_path.core.arithmetic.complex_ball import Scalar, promoted
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import EquationError, NotHandledError
from axis_path.core.evaluate import ExactForm, Expression, Result, make_complex
from axis_path.core.evaluate.objects.step_algebra import StepField
from axis_path.core.features.findings.equations import Equation
from axis_path.core.locate.algebra.polynomial import as_polynomial

_ORDER_BITS = 128


@dataclass(frozen=True, slots=True)
class ComplexSolution:
    """A solution, and how often it counts."""

    result: Result
    multiplicity: int


def complex_solutions(snapshot: Snapshot, equation: Equation) -> list[ComplexSolution]:
    """Return all complex solutions, by their real and then by their imaginary parts.

    Raises:
        EquationError: it is no equation of polynomials with fractions as coefficients, or it holds
            for every number or for none.
    """
    if not equation.is_equation:
        raise EquationError(
            "An inequality has no complex solutions: complex numbers have no order."
        )
    gap = equation.gaps[0]
    polynomial = as_polynomial(gap, gap.expression)
    if polynomial is None:
        raise EquationError(
            "Complex solutions are found of polynomials with fractions as coefficients; this is "
            "another equation."
        )
    if polynomial.degree() < 1:
        holds = "every number" if polynomial == 0 else "no number"
        raise EquationError(f"This equation holds for {holds}.")
    found = []
    for factor, multiplicity in polynomial.factor()[1]:
        with precision(_ORDER_BITS):
            roots = polynomial_roots(factor)
        for index, root in enumerate(roots):
            result = _result(snapshot, factor, index)
            found.append((_order(root), ComplexSolution(result, int(multiplicity))))
    return [solution for _, solution in sorted(found, key=lambda pair: pair[0])]


def _order(root: Scalar) -> tuple[float, float]:
    value = promoted(root).value
    return float(value.real.mid()), float(value.imag.mid())


def _result(snapshot: Snapshot, factor: fmpq_poly, index: int) -> Result:
    @cache
    def at_bits(bits: int) -> acb:
        with precision(bits):
            return promoted(polynomial_roots(factor)[index]).value

    return make_complex(at_bits, _looking(snapshot, factor, index))


def _looking(snapshot: Snapshot, factor: fmpq_poly, index: int) -> Callable[[], ExactForm]:
    def look() -> ExactForm:
        graph = snapshot.analysis.expressions.cache.graph
        try:
            with precision(_ORDER_BITS):
                step = surd_in_field(factor, polynomial_roots(factor)[index], StepField(graph))
        except NotHandledError:
            return ExactForm(None)
        return snapshot.evaluator.exact_form(Expression(graph, step))

    return look
