"""Solve a block of linear equations whose numbers are fractions, all at once and exactly."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction

from flint import fmpq, fmpq_mat

from axis_path.core.evaluate import Expression, Op

#: A sum of multiples of unknowns, by their names; the constant belongs to the empty name.
LinearForm = dict[str, Fraction]


def rational_solution(gaps: Sequence[Expression], names: Sequence[str]) -> list[Fraction] | None:
    """Return the one solution of linear equations by Gaussian elimination.

    Args:
        gaps: what is 0.
        names: the unknowns.

    Returns:
        Their values in the order of the names; None if the equations are not linear with
        fractions as factors, or have no solution or several.
    """
    forms: list[LinearForm] = []
    if len(gaps) != len(names):
        return None
    for gap in gaps:
        form = linear_form(gap)
        if form is None or not form.keys() <= {"", *names}:
            return None
        forms.append(form)
    count = len(names)
    factors = fmpq_mat(count, count, [_rational(form, name) for form in forms for name in names])
    right = fmpq_mat(count, 1, [-_rational(form, "") for form in forms])
    try:
        solved = factors.solve(right)
    except ZeroDivisionError:
        return None
    return [Fraction(int(value.p), int(value.q)) for value in solved.entries()]


def linear_form(expression: Expression) -> LinearForm | None:
    """Return an expression as a sum of multiples of its inputs; None if it is none."""
    program = expression.program
    forms: list[LinearForm | None] = []
    for step in program.steps:
        operands = [forms[k] for k in step.arguments]
        known = [form for form in operands if form is not None]
        forms.append(_formed(step.op, step.payload, known) if len(known) == len(operands) else None)
    return forms[program.results[0]]


def _formed(op: str, payload: object, operands: list[LinearForm]) -> LinearForm | None:
    """Return what an operation makes of linear forms; None if that is no linear form."""
    match op, operands:
        case Op.NUMBER, []:
            return {"": payload} if isinstance(payload, Fraction) else None
        case Op.INPUT, []:
            return {str(payload): Fraction(1)}
        case Op.NEGATIVE, [form]:
            return _times(form, Fraction(-1))
        case Op.ADD, [left, right]:
            return _plus(left, right)
        case Op.SUBTRACT, [left, right]:
            return _plus(left, _times(right, Fraction(-1)))
        case Op.MULTIPLY, [left, right]:
            factor, other = (left, right) if left.keys() <= {""} else (right, left)
            return _times(other, factor.get("", Fraction(0))) if factor.keys() <= {""} else None
        case Op.DIVIDE, [left, right]:
            divisor = right.get("", Fraction(0))
            return _times(left, 1 / divisor) if divisor and right.keys() <= {""} else None
    return None


def _times(form: LinearForm, factor: Fraction) -> LinearForm:
    return {name: factor * value for name, value in form.items()}


def _plus(left: LinearForm, right: LinearForm) -> LinearForm:
    names = {**left, **right}
    return {name: left.get(name, Fraction(0)) + right.get(name, Fraction(0)) for name in names}


def _rational(form: LinearForm, name: str) -> fmpq:
    value = form.get(name, Fraction(0))
    return fmpq(value.numerator, value.denominator)
