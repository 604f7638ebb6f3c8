"""Least squares for formulas that are not linear in their parameters.

Levenberg and Marquardt's method with exact derivatives finds the minimum in floats, from the values
that are given to begin with; Gauss and Newton's, with 200 binary digits, then gives the
coefficients all their digits.

Source: Moré, *The Levenberg-Marquardt algorithm*, 1978, in SciPy's ``least_squares``.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from fractions import Fraction

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, precision
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.data.fit import Fit
from axis_path.core.data.linear_fit import Solved, number_text, solve_least_squares, to_arb
from axis_path.core.errors import DataError
from axis_path.core.evaluate import Expression, evaluate_together, sample_inputs

Floats = NDArray[np.float64]
_BITS = 200
#: More points than this are not polished: floats give them their digits.
_MOST_POLISHED = 2_000
_POLISH_ROUNDS, _MOST_POLISH_WORK = 80, 20_000
_MOST_CALLS = 4_000


@dataclass(frozen=True, slots=True)
class Formula:
    """A formula with parameters, in the graph: x and the parameters are its inputs.

    Attributes:
        text: as it is typed.
        value: the formula.
        slopes: its derivatives by the parameters, in their order.
        names: the names of the parameters.
        inputs: under which names the graph knows them; x first.
        sliders: the values of the study's sliders.
    """

    text: str
    value: Expression
    slopes: tuple[Expression, ...]
    names: tuple[str, ...]
    inputs: tuple[str, ...]
    sliders: Parameters

    def at(self, x: Floats, parameters: Floats) -> Floats:
        """Return the values at abscissae."""
        return self._sampled(self.value, x, parameters)

    def slopes_at(self, x: Floats, parameters: Floats) -> Floats:
        """Return the derivatives by the parameters, (n, p)."""
        return np.column_stack([self._sampled(slope, x, parameters) for slope in self.slopes])

    def _sampled(self, expression: Expression, x: Floats, parameters: Floats) -> Floats:
        given = [x, *(np.full(len(x), value) for value in parameters)]
        return sample_inputs(expression, self.sliders, dict(zip(self.inputs, given, strict=True)))

    def proved(self, x: arb, parameters: Sequence[arb]) -> list[Ball]:
        """Return the balls of the value and of its derivatives at one place."""
        balls = dict(zip(self.inputs, map(Ball, (x, *parameters)), strict=True))
        return evaluate_together((self.value, *self.slopes), self.sliders, balls)


def fit_nonlinear(
    formula: Formula,
    x: Sequence[Fraction],
    y: Sequence[Fraction],
    start: Sequence[float],
    model: str,
) -> Fit:
    """Fit a formula.

    Args:
        formula: with its parameters.
        x: the abscissae as they were typed.
        y: the ordinates.
        start: values of the parameters to begin from.
        model: what the model is called.

    Raises:
        DataError: there are too few points, the formula has no value at a point, or nothing was
            found from there.
    """
    count = len(formula.names)
    if len(x) < count:
        raise DataError(f"{count} coefficients need at least {count} points; there are {len(x)}.")
    xs, ys = np.array([float(v) for v in x]), np.array([float(v) for v in y])
    begin = np.array(start, dtype=np.float64)
    if not np.all(np.isfinite(formula.at(xs, begin))):
        raise DataError("With the values to start from the formula has no value at some point.")
    fitted = _minimised(formula, xs, ys, begin)
    if _rest(formula, xs, ys, fitted) > float(np.sum((ys - ys.mean()) ** 2)):
        others = [_minimised(formula, xs, ys, start) for start in _scaled(formula, xs, ys, begin)]
        fitted = min([fitted, *others], key=lambda item: _rest(formula, xs, ys, item))
    polished = _polished(formula, x, y, fitted) if len(x) <= _MOST_POLISHED else None
    best, solved = polished or (fitted, _in_floats(formula, xs, ys, fitted))
    freedom = len(x) - count
    variance = solved.rest / freedom if freedom else math.nan
    said = [] if polished else ["The coefficients have the digits that floats give."]
    if solved.rest > solved.total:
        said.append("A level line fits better: begin with values that are nearer.")
    return Fit(
        model, formula.names, best, np.sqrt(np.diag(solved.spread) * variance),
        1.0 - solved.rest / solved.total if solved.total else math.nan,
        math.sqrt(variance) if freedom else math.nan,
        solved.residuals, xs, ys, put_in(formula.text, formula.names, best),
        lambda at: formula.at(at, best), lambda at: formula.slopes_at(at, best), solved.spread,
        " ".join(said),
    )  # fmt: skip


def _rest(formula: Formula, x: Floats, y: Floats, parameters: Floats) -> float:
    return float(np.sum((formula.at(x, parameters) - y) ** 2))


def _scaled(formula: Formula, x: Floats, y: Floats, begin: Floats) -> list[Floats]:
    """Return starts of which one parameter has the scale of the data, should it be a factor."""
    with np.errstate(all="ignore"):
        scale = np.median(np.abs(y)) / np.median(np.abs(formula.at(x, begin)))
        starts = [
            np.where(np.arange(len(begin)) == k, begin * scale, begin) for k in range(len(begin))
        ]
    return [start for start in starts if np.all(np.isfinite(formula.at(x, start)))]


def put_in(text: str, names: Sequence[str], values: Floats) -> str:
    """Describe which values the parameters of a formula have."""
    given = ", ".join(
        f"{n} = {number_text(v)}" for n, v in zip(names, values.tolist(), strict=True)
    )
    return f"{text} with {given}"


def _minimised(formula: Formula, x: Floats, y: Floats, begin: Floats) -> Floats:
    def rest(parameters: Floats) -> Floats:
        values = formula.at(x, parameters) - y
        return np.where(np.isfinite(values), values, 1e100)

    def slopes(parameters: Floats) -> Floats:
        minimum = formula.slopes_at(x, parameters)
        return np.where(np.isfinite(minimum), minimum, 0.0)

    # It takes a while to load, and is seldom needed.
    from scipy import optimize

    best: Floats | None = None
    least = math.inf
    attempts: tuple[Callable[[], object], ...] = (
        lambda: optimize.least_squares(
            rest, begin, slopes, method="lm", x_scale="jac", xtol=1e-15, ftol=1e-15, gtol=1e-15,
            max_nfev=_MOST_CALLS,
        ),
        lambda: optimize.least_squares(
            rest, begin, slopes, method="trf", x_scale="jac", xtol=1e-15, ftol=1e-15, gtol=1e-15,
            max_nfev=_MOST_CALLS,
        ),
    )  # fmt: skip
    for attempt in attempts:
        try:
            minimum = attempt()
        except (ValueError, np.linalg.LinAlgError):
            continue
        cost = float(minimum.cost)  # type: ignore[attr-defined]
        if cost < least * (1 - 1e-9):
            least, best = cost, np.asarray(minimum.x)  # type: ignore[attr-defined]
    if best is None or not math.isfinite(least) or least >= 1e99:
        raise DataError("No fit was found from these values to start from: try others.")
    return best


def _polished(
    formula: Formula, x: Sequence[Fraction], y: Sequence[Fraction], begin: Floats
) -> tuple[Floats, Solved] | None:
    """Go on with Gauss and Newton's method in many digits; None if it does not come to rest."""
    with precision(_BITS):
        xs, ys = [to_arb(v) for v in x], [to_arb(v) for v in y]
        parameters = [arb(value) for value in begin.tolist()]
        last = math.inf
        solved: Solved | None = None
        for _ in range(min(_POLISH_ROUNDS, max(_MOST_POLISH_WORK // len(x), 6))):
            rows: list[list[arb]] = []
            right: list[arb] = []
            for abscissa, value in zip(xs, ys, strict=True):
                here, *slopes = formula.proved(abscissa, parameters)
                if not here.is_defined or not all(slope.is_defined for slope in slopes):
                    return None
                rows.append([slope.value.mid() for slope in slopes])
                right.append((value - here.value).mid())
            try:
                solved = solve_least_squares(rows, right)
            except DataError:
                return None
            steps = solved.coefficients
            size = max(
                abs(step) / max(abs(float(p)), 1e-300)
                for step, p in zip(steps.tolist(), parameters, strict=True)
            )
            if size < 1e-17 or (size > last and size < 1e-12):
                break
            if size > max(10 * last, 1.0):
                return None
            last = size
            parameters = [
                (p + arb(step)).mid() for p, step in zip(parameters, steps.tolist(), strict=True)
            ]
        if solved is None or last > 1e-9:
            return None
        rest = sum((residual * residual for residual in right), arb(0))
        mean = sum(ys, arb(0)) / len(ys)
        total = sum(((v - mean) * (v - mean) for v in ys), arb(0))
        best = np.array([float(p) for p in parameters])
        residuals = np.array([float(residual) for residual in right])
        return best, Solved(best, solved.spread, residuals, float(rest), float(total))


def _in_floats(formula: Formula, x: Floats, y: Floats, best: Floats) -> Solved:
    residuals = y - formula.at(x, best)
    r = np.linalg.qr(formula.slopes_at(x, best), mode="r")
    inverse = np.linalg.pinv(r)
    total = float(np.sum((y - y.mean()) ** 2))
    return Solved(best, inverse @ inverse.T, residuals, float(residuals @ residuals), total)
