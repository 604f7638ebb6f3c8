"""A fitted curve: its coefficients, how sure they are, and what it predicts."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from scipy import special

from axis_path.core.errors import DataError

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Prediction:
    """What a fit says of a place.

    Attributes:
        value: of the curve there.
        low: the lower end of the interval in which one more measurement lies, as likely as was
            asked.
        high: the upper end.
        is_outside: whether the place lies outside the data.
    """

    value: float
    low: float
    high: float
    is_outside: bool


@dataclass(frozen=True, slots=True)
class Fit:
    """A fitted curve.

    Attributes:
        model: which.
        names: of the coefficients.
        coefficients: polynomials begin with the lowest power.
        errors: the standard error of each; NaN where there is one point for each coefficient.
        r_squared: the share of the variance that the curve takes up.
        residual_sd: the standard deviation of what is left, with the degrees of freedom that are
            left.
        residuals: (n,), data less curve.
        x: the abscissae that were fitted, (n,); missing cells are left out.
        y: the ordinates.
        text: the curve in our language, with all digits of its coefficients.
        curve: gives its values at abscissae, (m,) floats.
        note: what one should know of it; may be empty.
    """

    model: str
    names: tuple[str, ...]
    coefficients: Floats
    errors: Floats
    r_squared: float
    residual_sd: float
    residuals: Floats
    x: Floats
    y: Floats
    text: str
    curve: Callable[[Floats], Floats] = field(repr=False)
    #: Derivatives of the curve by its coefficients at abscissae, (m, p), and their covariance over
    #: the variance of the residuals, (p, p).
    slopes: Callable[[Floats], Floats] = field(repr=False)
    spread: Floats = field(repr=False)
    note: str = ""

    @property
    def freedom(self) -> int:
        """Return how many degrees of freedom are left."""
        return len(self.x) - len(self.coefficients)

    def predict(self, x: float, likely: float = 0.95) -> Prediction:
        """Predict a measurement at a place.

        Args:
            x: where.
            likely: how likely it lies in the interval.

        Raises:
            DataError: there are no degrees of freedom left to say how sure it is.
        """
        value, reach = self.band(np.array([x]), likely)
        low, high = float(value[0] - reach[0]), float(value[0] + reach[0])
        return Prediction(float(value[0]), low, high, self.is_outside(x))

    def band(self, x: Floats, likely: float = 0.95) -> tuple[Floats, Floats]:
        """Return the curve at abscissae, and how far one more measurement may be off, (m,) each.

        Raises:
            DataError: there are no degrees of freedom left to say how sure it is.
        """
        if self.freedom < 1:
            raise DataError("As many coefficients as points say nothing of the next one.")
        slopes = self.slopes(x)
        own = np.maximum(np.einsum("ij,jk,ik->i", slopes, self.spread, slopes), 0.0)
        # The quantile of Student's distribution, without the quarter of a second that SciPy's
        # module of distributions takes to load.
        factor = float(special.stdtrit(self.freedom, 0.5 + likely / 2))
        return self.curve(x), factor * self.residual_sd * np.sqrt(1.0 + own)

    def is_outside(self, x: float) -> bool:
        """Check whether a place lies outside the data."""
        return not float(np.min(self.x)) <= x <= float(np.max(self.x))

    def solutions_of(self, y: float, likely: float = 0.95) -> list[Prediction]:
        """Return the places within the data at which the curve has a value, each with an interval.

        The interval holds the x for which a measurement of y is as likely as was asked.

        Args:
            y: the value.
            likely: how likely.
        """
        # It takes a while to load, and is seldom needed.
        from scipy.optimize import brentq

        low, high = float(np.min(self.x)), float(np.max(self.x))
        grid = np.linspace(low, high, 1_001)
        values = self.curve(grid) - y
        abscissas = []
        for k in np.flatnonzero(values[:-1] * values[1:] <= 0).tolist():
            if values[k + 1] == 0 and k + 2 < len(values):
                continue
            x = float(
                brentq(lambda at: float(self.curve(np.array([at]))[0]) - y, grid[k], grid[k + 1])
            )
            abscissas.append(self._around(x, y, likely))
        return abscissas

    def _around(self, x: float, y: float, likely: float) -> Prediction:
        width = float(np.ptp(self.x))
        steps = np.linspace(0, 2 * width, 1_001)
        ends = []
        for side in (-1, 1):
            value, reach = self.band(x + side * steps, likely)
            beyond = np.flatnonzero(np.abs(value - y) > reach)
            ends.append(x + side * float(steps[beyond[0]]) if len(beyond) else side * math.inf)
        return Prediction(x, ends[0], ends[1], self.is_outside(x))
