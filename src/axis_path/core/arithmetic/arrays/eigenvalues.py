"""Eigenvalues and eigenvectors, proved.

Of a matrix of fractions the characteristic polynomial is factored over the fractions, so that it is
known which eigenvalues are equal; each root is isolated and refined by FLINT. A vector of a root r
of the factor p is h(A) u, where p(x) = (x - r) h(x) and u lies in the null space of p(A). Other
matrices are handled with enclosures that are proved to hold one eigenvalue each.

Source: Johansson, *Arb*, acb_mat_eig; Rump, *Computational error bounds for multiple or nearly
multiple eigenvalues*, 2001.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

import flint
from flint import acb, fmpq, fmpq_mat, fmpq_poly

from axis_path.core.arithmetic import ball, messages
from axis_path.core.arithmetic.arrays.array import Array, check_work, matrix, need_square, vector
from axis_path.core.arithmetic.arrays.combine import transposed
from axis_path.core.arithmetic.arrays.echelon import UndecidedError
from axis_path.core.arithmetic.arrays.elimination import null_space
from axis_path.core.arithmetic.arrays.flint_matrices import (
    Matrices,
    balls,
    exact_ball,
    from_matrix,
    is_complex,
    need_values,
    rationals,
)
from axis_path.core.arithmetic.arrays.scalars import SCALARS
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.complex_ball import ComplexBall, Scalar, promoted, simplified
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.arithmetic.precision import precision
from axis_path.core.deadline import check
from axis_path.core.errors import NotHandledError
from axis_path.core.limits import EIGEN_SIDE, EXACT_SIDE

_WHAT = "Eigenvalues"
_NO_FORM = messages.EIGENVALUES_HAVE_NO_CLOSED
#: Roots are put in order with so many binary digits.
_ORDER_BITS = 128


@dataclass(frozen=True, slots=True)
class _Root:
    """An eigenvalue of a matrix of fractions, with the irreducible factor that it is a root of."""

    value: Scalar
    factor: fmpq_poly
    multiplicity: int


def eigenvalues(a: Matrices) -> Matrices:
    """Return all eigenvalues, by their real parts and then by their imaginary parts.

    Raises:
        ShapeError: the matrix is not square. UndecidedError: they could not be kept apart.
    """
    need_square(a, _WHAT)
    check_work(a, messages.EIGENVALUES, EIGEN_SIDE)
    need_values(a)
    known = _rational(a)
    if known is not None:
        return vector([root.value for root in _roots(known) for _ in range(root.multiplicity)])
    return vector([_of_real(value, a) for value in _isolated(a)])


def _rational(a: Matrices) -> fmpq_mat | None:
    return rationals(a) if a.shape[0] <= EXACT_SIDE.value else None


def _roots(a: fmpq_mat) -> list[_Root]:
    """Return the distinct eigenvalues, in order."""
    _, factors = a.charpoly().factor()
    found = []
    for factor, multiplicity in factors:
        check()
        found += [_Root(value, factor, multiplicity) for value in polynomial_roots(factor)]
    return sorted(found, key=lambda root: _order(root.value))


def _order(value: Scalar) -> tuple[float, float]:
    whole = promoted(value).value
    return float(whole.real.mid()), float(whole.imag.mid())


def polynomial_roots(factor: fmpq_poly) -> list[Scalar]:
    """Return all complex roots of an irreducible polynomial with fractions as coefficients.

    Up to degree 2 they are made of square roots, so that fractions come out exact.
    """
    degree = factor.degree()
    c, b = exact_ball(factor[0]), exact_ball(factor[1])
    if degree == 1:
        return [ball.negative(ball.divide(c, b))]
    if degree == 2:
        a = exact_ball(factor[2])
        square = ball.subtract(
            ball.integer_power(b, 2), ball.multiply(ball.from_fraction(4), ball.multiply(a, c))
        )
        root = SCALARS.square_root(square)
        twice, middle = ball.multiply(ball.from_fraction(2), a), ball.negative(b)
        return [
            SCALARS.divide(SCALARS.subtract(middle, root), twice),
            SCALARS.divide(SCALARS.add(middle, root), twice),
        ]
    whole = (factor * fmpq(factor.denom())).numer()
    roots: list[Scalar] = []
    for value, _ in whole.complex_roots():
        # Roots off the axis come in pairs, so that one whose ball meets the axis lies on it.
        roots.append(Ball(value.real) if value.imag.contains(0) else ComplexBall(value))
    return roots


def _isolated(a: Matrices) -> list[acb]:
    values = balls(a, as_complex=True)
    try:
        found: list[acb] = values.eig()
    except ValueError:
        try:
            found = values.eig(multiple=True)
        except ValueError:
            raise UndecidedError from None
    return sorted(found, key=lambda value: (float(value.real.mid()), float(value.imag.mid())))


def _of_real(value: acb, a: Matrices) -> Scalar:
    """Return an eigenvalue as a real number, if it must be one."""
    if not is_complex(a) and value.imag.contains(0):
        return Ball(value.real)
    return simplified(ComplexBall(value))


def eigenvectors(a: Matrices) -> Matrices:
    """Return independent eigenvectors as columns, in the order of the eigenvalues.

    Those of a fraction are whole numbers without a common factor; of others the last entry that is
    not 0 is 1.

    Raises:
        ShapeError: the matrix is not square. UndecidedError: they could not be kept apart.
    """
    need_square(a, _WHAT)
    check_work(a, messages.EIGENVALUES, EIGEN_SIDE)
    need_values(a)
    known = _rational(a)
    if known is None:
        return _vectors_of_balls(a)
    columns: list[Sequence[Scalar]] = []
    for root in _roots(known):
        check()
        if root.factor.degree() == 1:
            columns += _vectors_of_fraction(known, root)
        else:
            columns += _vectors(known, root)
    return transposed(matrix(columns))


def _diagonal(size: int, value: fmpq) -> fmpq_mat:
    zero = fmpq(0)
    return fmpq_mat(
        size, size, [value if r == c else zero for r in range(size) for c in range(size)]
    )


def _vectors(a: fmpq_mat, root: _Root) -> list[list[Scalar]]:
    """Return independent eigenvectors of a root that is no fraction."""
    degree = root.factor.degree()
    # Its null space holds the vectors of all roots of p.
    space = null_space(from_matrix(_of_polynomial(a, root.factor)))
    count = space.column_count // degree
    # The coefficients of h, by the division of p by x - r.
    coefficients: list[Scalar] = [exact_ball(root.factor[degree])]
    for power in range(degree - 1, 0, -1):
        step = SCALARS.multiply(root.value, coefficients[-1])
        coefficients.append(SCALARS.add(exact_ball(root.factor[power]), step))
    rows = from_matrix(a).rows()
    found: list[list[Scalar]] = []
    for column in space.columns():
        vector_ = [SCALARS.multiply(coefficients[0], entry) for entry in column]
        for coefficient in coefficients[1:]:
            vector_ = [
                SCALARS.add(_inner(row, vector_), SCALARS.multiply(coefficient, entry))
                for row, entry in zip(rows, column, strict=True)
            ]
        _add_independent(found, vector_)
        if len(found) == count:
            return found
    raise UndecidedError


def _of_polynomial(a: fmpq_mat, polynomial: fmpq_poly) -> fmpq_mat:
    """Return p(A) by Horner's rule."""
    whole = _diagonal(a.nrows(), polynomial[polynomial.degree()])
    for power in range(polynomial.degree() - 1, -1, -1):
        whole = whole * a + _diagonal(a.nrows(), polynomial[power])
    return whole


def _inner(row: Sequence[Scalar], column: Sequence[Scalar]) -> Scalar:
    total = SCALARS.number(0)
    for one, other in zip(row, column, strict=True):
        total = SCALARS.add(total, SCALARS.multiply(one, other))
    return total


def _add_independent(found: list[list[Scalar]], new: list[Scalar]) -> None:
    """Add a vector less its parts along the others, scaled, if it is surely none of their sums."""
    rest = new
    for other in found:
        last = max(k for k, entry in enumerate(other) if entry.sign())
        factor = rest[last]
        rest = [
            SCALARS.subtract(entry, SCALARS.multiply(factor, part))
            for entry, part in zip(rest, other, strict=True)
        ]
        rest[last] = SCALARS.number(0)
    sure = [k for k, entry in enumerate(rest) if entry.sign()]
    if not sure:
        return
    head = rest[sure[-1]]
    scaled = [SCALARS.divide(entry, head) for entry in rest]
    scaled[sure[-1]] = SCALARS.number(1)
    found.append(scaled)


def _vectors_of_balls(a: Matrices) -> Matrices:
    values = balls(a, as_complex=True)
    try:
        roots, made = values.eig(right=True)
    except ValueError:
        raise UndecidedError from None
    order = sorted(range(len(roots)), key=lambda k: _order(ComplexBall(roots[k])))
    columns = []
    for index in order:
        column: list[Scalar] = [ComplexBall(made[row, index]) for row in range(made.nrows())]
        sure = [k for k, entry in enumerate(column) if entry.sign()]
        if not sure:
            raise UndecidedError
        head = column[sure[-1]]
        is_real = not is_complex(a) and bool(roots[index].imag.contains(0))
        scaled = [SCALARS.divide(entry, head) for entry in column]
        scaled[sure[-1]] = SCALARS.number(1)
        columns.append([_real_part(entry) if is_real else entry for entry in scaled])
    return transposed(matrix(columns))


def _real_part(entry: Scalar) -> Scalar:
    return entry if isinstance(entry, Ball) else Ball(entry.value.real)


def in_field(field: Any, a: Array[Any]) -> Array[Any]:  # noqa: ANN401 - any arithmetic
    """Return eigenvalues that are fractions or made of square roots, in any arithmetic.

    Raises:
        ShapeError: the matrix is not square. NotHandledError: others are among them.
    """
    need_square(a, _WHAT)
    known = _known_in_field(field, a)
    if known is None:
        return _of_two_rows(field, a)
    with precision(max(flint.ctx.prec, _ORDER_BITS)):
        roots = _roots(known)
        if any(root.factor.degree() > 2 for root in roots):
            raise NotHandledError(_NO_FORM)
        made = []
        for root in roots:
            made += [surd_in_field(root.factor, root.value, field)] * root.multiplicity
    return vector(made)


def _known_in_field(field: Any, a: Array[Any]) -> fmpq_mat | None:  # noqa: ANN401
    """Return a matrix of fractions, None if an entry is none."""
    numbers = [field.known(entry) for entry in a.entries]
    if any(number is None for number in numbers):
        return None
    size = a.shape[0]
    return fmpq_mat(size, size, [fmpq(n.numerator, n.denominator) for n in numbers])


def _of_two_rows(field: Any, a: Array[Any]) -> Array[Any]:  # noqa: ANN401
    """Return the eigenvalues of a 2 by 2 matrix by the quadratic formula, in no certain order."""
    if a.shape != (2, 2):
        raise NotHandledError(_NO_FORM)
    half = field.divide(field.add(a.at(0, 0), a.at(1, 1)), field.number(2))
    away = field.divide(field.subtract(a.at(0, 0), a.at(1, 1)), field.number(2))
    other = field.multiply(a.at(0, 1), a.at(1, 0))
    root = field.square_root(field.add(field.multiply(away, away), other))
    return vector([field.subtract(half, root), field.add(half, root)])


def vectors_in_field(field: Any, a: Array[Any]) -> Array[Any]:  # noqa: ANN401
    """Return the eigenvectors of a matrix of fractions in any arithmetic, as ``eigenvectors`` does.

    Raises:
        ShapeError: the matrix is not square. NotHandledError: an eigenvalue has no closed form.
    """
    need_square(a, _WHAT)
    known = _known_in_field(field, a)
    if known is None:
        raise NotHandledError(_NO_FORM)
    columns: list[Sequence[Any]] = []
    with precision(max(flint.ctx.prec, _ORDER_BITS)):
        for root in _roots(known):
            if root.factor.degree() == 1:
                columns += [
                    [field.number(to_fraction(entry.exact)) for entry in column]
                    for column in _vectors_of_fraction(known, root)
                ]
            else:
                columns.append(_vector_in_field(field, known, root))
    return transposed(matrix(columns))


def _vectors_of_fraction(a: fmpq_mat, root: _Root) -> list[tuple[Scalar, ...]]:
    shifted = a - _diagonal(a.nrows(), -root.factor[0] / root.factor[1])
    return null_space(from_matrix(shifted)).columns()


def _vector_in_field(field: Any, a: fmpq_mat, root: _Root) -> list[Any]:  # noqa: ANN401
    vectors = _vectors(a, root)
    if len(vectors) > 1:
        raise NotHandledError(_NO_FORM)
    value = surd_in_field(root.factor, root.value, field)
    (found,) = vectors
    # p(x) = (x - r) h(x) with h(x) = a x + (a r + b): the vector is h(A) u.
    column = null_space(from_matrix(_of_polynomial(a, root.factor))).columns()[0]
    top, next_ = (to_fraction(root.factor[power]) for power in (2, 1))
    rest = field.add(field.multiply(field.number(top), value), field.number(next_))
    numbers = [to_fraction(entry.exact) for entry in column if entry.exact is not None]
    made = []
    for row in range(a.nrows()):
        image = sum(
            (to_fraction(a[row, k]) * number for k, number in enumerate(numbers)), Fraction(0)
        )
        scaled = field.multiply(rest, field.number(numbers[row]))
        made.append(field.add(field.number(top * image), scaled))
    last = max(k for k, entry in enumerate(found) if entry.sign())
    head = made[last]
    made = [field.divide(entry, head) for entry in made]
    made[last] = field.number(1)
    return made


def surd_in_field(factor: fmpq_poly, root: Scalar, field: Any) -> Any:  # noqa: ANN401
    """Return the root of an irreducible polynomial of degree 1 or 2 in any arithmetic.

    Args:
        factor: the polynomial.
        root: which of its roots.
        field: the arithmetic; it has ``imaginary_unit`` too.

    Raises:
        NotHandledError: the degree is higher.
    """
    if factor.degree() == 1:
        return field.number(to_fraction(-factor[0] / factor[1]))
    if factor.degree() > 2:
        raise NotHandledError(messages.ROOT_HIGHER_DEGREE_HAS)
    c, b, a = factor[0], factor[1], factor[2]
    square = (b * b - 4 * a * c) / (4 * a * a)
    size = field.square_root(field.number(to_fraction(abs(square))))
    part = size if square > 0 else field.multiply(size, field.imaginary_unit())
    middle = field.number(to_fraction(-b / (2 * a)))
    value = promoted(root).value
    away = value.real if square > 0 else value.imag
    centre = -b / (2 * a) if square > 0 else fmpq(0)
    is_upper = bool(away > flint.arb(centre))
    return (field.add if is_upper else field.subtract)(middle, part)
