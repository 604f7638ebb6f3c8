"""Least squares for models that are linear in their coefficients, by QR with 300 binary digits.

The matrix is made of the data as they were typed, so that nothing is lost before it is taken apart;
Householder reflections then lose nothing that could be seen in a float, however ill-conditioned the
problem is.

Source: Golub, Van Loan, *Matrix Computations*, section 5.3; the certified problems of the
Statistical Reference Datasets are in the tests.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from fractions import Fraction

import numpy as np
from flint import arb, fmpq
from numpy.typing import NDArray

from axis_path.core.arithmetic import precision
from axis_path.core.data.fit import Fit
from axis_path.core.deadline import check
from axis_path.core.errors import DataError

Floats = NDArray[np.float64]
_BITS = 300


@dataclass(frozen=True, slots=True)
class Solved:
    """The solution of a linear problem of least squares, as floats.

    Attributes:
        coefficients: (p,).
        spread: the inverse of X'X, (p, p).
        residuals: (n,).
        rest: the sum of their squares; ``total`` that about the mean.
    """

    coefficients: Floats
    spread: Floats
    residuals: Floats
    rest: float
    total: float


def to_arb(value: Fraction) -> arb:
    """Return a fraction as a ball, at the present precision."""
    return arb(fmpq(value.numerator, value.denominator))


def fit_linear(
    x: Sequence[Fraction],
    y: Sequence[Fraction],
    columns: Sequence[Callable[[arb], arb]],
    model: str,
    names: tuple[str, ...],
    terms: tuple[str, ...],
) -> Fit:
    """Fit a sum of given functions, each with a factor.

    Args:
        x: the abscissae as they were typed.
        y: the ordinates.
        columns: the functions.
        model: what the model is called.
        names: what the factors are called.
        terms: the functions in our language; empty for the constant 1.

    Raises:
        DataError: there are too few points, or they do not tell the factors apart.
    """
    if len(x) < len(columns):
        raise DataError(
            f"{len(columns)} coefficients need at least {len(columns)} points; there are {len(x)}."
        )
    with precision(_BITS):
        abscissae = [to_arb(value) for value in x]
        rows = [[column(abscissa) for column in columns] for abscissa in abscissae]
        solved = solve_least_squares(rows, [to_arb(value) for value in y])
    freedom = len(x) - len(columns)
    variance = solved.rest / freedom if freedom else math.nan
    text = written_sum(solved.coefficients, terms)

    def slopes(at: Floats) -> Floats:
        with precision(_BITS):
            made = [[float(column(arb(x))) for column in columns] for x in at.tolist()]
        return np.array(made, dtype=np.float64).reshape(len(at), len(columns))

    return Fit(
        model, names, solved.coefficients,
        np.sqrt(np.diag(solved.spread) * variance),
        1.0 - solved.rest / solved.total if solved.total else math.nan,
        math.sqrt(variance) if freedom else math.nan,
        solved.residuals, np.array([float(v) for v in x]), np.array([float(v) for v in y]), text,
        lambda at: slopes(at) @ solved.coefficients, slopes, solved.spread,
    )  # fmt: skip


def solve_least_squares(rows: list[list[arb]], right: list[arb]) -> Solved:
    """Solve a linear problem of least squares by Householder's QR, at the present precision.

    Args:
        rows: the matrix, n rows of p numbers.
        right: n numbers.

    Raises:
        DataError: the columns of the matrix depend on one another.
    """
    n, p = len(rows), len(rows[0])
    work = [[*(value.mid() for value in row), b.mid()] for row, b in zip(rows, right, strict=True)]
    for k in range(p):
        check()
        _reflect(work, k, n, p)
    inverse = _inverted(work, p)
    coefficients = [
        sum((inverse[j][k] * work[k][p] for k in range(j, p)), arb(0)) for j in range(p)
    ]
    spread = [
        [
            sum((inverse[i][k] * inverse[j][k] for k in range(max(i, j), p)), arb(0))
            for j in range(p)
        ]
        for i in range(p)
    ]
    residuals = [
        b - sum((a * c for a, c in zip(row, coefficients, strict=True)), arb(0))
        for row, b in zip(rows, right, strict=True)
    ]
    mean = sum(right, arb(0)) / n
    return Solved(
        np.array([float(coefficient) for coefficient in coefficients]),
        np.array([[float(entry) for entry in row] for row in spread]),
        np.array([float(residual) for residual in residuals]),
        float(sum((residual * residual for residual in residuals), arb(0))),
        float(sum(((b - mean) * (b - mean) for b in right), arb(0))),
    )


def _reflect(work: list[list[arb]], k: int, n: int, p: int) -> None:
    """Take what stands below the diagonal out of one column."""
    size = sum((work[i][k] * work[i][k] for i in range(k, n)), arb(0)).sqrt().mid()
    largest = max((abs(work[i][k]) for i in range(n)), default=arb(0))
    if bool(size <= largest * arb(2) ** (-_BITS // 2)):
        raise DataError("These points do not tell the coefficients apart: x has too few values.")
    head = work[k][k]
    alpha = -size if bool(head >= 0) else size
    v = [work[i][k] for i in range(k, n)]
    v[0] = (head - alpha).mid()
    square = sum((entry * entry for entry in v), arb(0)).mid()
    for j in range(k, p + 1):
        share = sum((v[i] * work[k + i][j] for i in range(n - k)), arb(0)).mid()
        factor = (2 * share / square).mid()
        for i in range(n - k):
            work[k + i][j] = (work[k + i][j] - factor * v[i]).mid()
    work[k][k] = alpha


def _inverted(work: list[list[arb]], p: int) -> list[list[arb]]:
    """Invert the upper triangle."""
    inverse = [[arb(0)] * p for _ in range(p)]
    for j in range(p):
        inverse[j][j] = (1 / work[j][j]).mid()
        for i in range(j - 1, -1, -1):
            total = sum((work[i][k] * inverse[k][j] for k in range(i + 1, j + 1)), arb(0))
            inverse[i][j] = (-total / work[i][i]).mid()
    return inverse


def written_sum(coefficients: Floats, terms: Sequence[str]) -> str:
    """Write a sum of terms with all the digits of their factors."""
    text = ""
    for value, term in zip(coefficients.tolist(), terms, strict=True):
        size = number_text(abs(value))
        part = f"{size} {term}" if term else size
        if not text:
            text = f"-{part}" if value < 0 else part
        else:
            text += f" - {part}" if value < 0 else f" + {part}"
    return text


def number_text(value: float) -> str:
    """Write a float with the digits that are right whatever was rounded to it."""
    text = f"{value:.15g}"
    mantissa, _, exponent = text.partition("e")
    return f"{mantissa}*10^({int(exponent)})" if exponent else text.removesuffix(".0")
