"""The models that can be fitted by name: their formula in our language, and where to begin."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from axis_path.core.errors import DataError

Floats = NDArray[np.float64]


class ModelName(StrEnum):
    """What can be fitted."""

    LINEAR = "linear"
    POLYNOMIAL = "polynomial"
    EXPONENTIAL = "exponential"
    POWER = "power"
    LOGARITHMIC = "logarithmic"
    SINUSOIDAL = "sinusoidal"
    LOGISTIC = "logistic"
    FORMULA = "formula"


@dataclass(frozen=True, slots=True)
class Model:
    """A model that is not linear in its parameters.

    Attributes:
        formula: in our language; ``x`` stands for the first column.
        parameters: their names, in the order of the coefficients.
        start: gives values to begin from, given x and y, (n,) floats each.
    """

    formula: str
    parameters: tuple[str, ...]
    start: Callable[[Floats, Floats], tuple[float, ...]]


def _exponential(x: Floats, y: Floats) -> tuple[float, ...]:
    """Begin with the line through the logarithms of what has the sign of most values."""
    sign = 1.0 if np.sum(y > 0) >= np.sum(y < 0) else -1.0
    usable = sign * y > 0
    if np.sum(usable) < 2:
        return sign, 0.0
    slope, level = np.polyfit(x[usable], np.log(sign * y[usable]), 1)
    return sign * math.exp(min(level, 700.0)), float(slope)


def _power(x: Floats, y: Floats) -> tuple[float, ...]:
    if np.any(x <= 0):
        raise DataError("A power is fitted where x is above 0; some values of x are not.")
    sign = 1.0 if np.sum(y > 0) >= np.sum(y < 0) else -1.0
    usable = sign * y > 0
    if np.sum(usable) < 2:
        return sign, 1.0
    slope, level = np.polyfit(np.log(x[usable]), np.log(sign * y[usable]), 1)
    return sign * math.exp(min(level, 700.0)), float(slope)


def _sinusoidal(x: Floats, y: Floats) -> tuple[float, ...]:
    """Begin with the frequency at which a sine fits best, of many between wide and narrow."""
    span = float(np.ptp(x))
    gaps = np.diff(np.unique(x))
    shortest = 2 * float(np.median(gaps)) if len(gaps) else span
    best: tuple[float, tuple[float, ...]] = (math.inf, (1.0, 1.0, 0.0, 0.0))
    least, most = math.pi / (2 * span), 2 * math.pi / max(shortest, span / 500)
    for frequency in np.linspace(least, max(most, 2 * least), 600):
        design = np.column_stack([np.sin(frequency * x), np.cos(frequency * x), np.ones(len(x))])
        coefficients = np.linalg.lstsq(design, y, rcond=None)[0]
        rest = float(np.sum((design @ coefficients - y) ** 2))
        if rest < best[0] * (1 - 1e-9):
            size = math.hypot(coefficients[0], coefficients[1])
            phase = math.atan2(coefficients[1], coefficients[0])
            best = (rest, (size, float(frequency), phase, float(coefficients[2])))
    return best[1]


def _logistic(x: Floats, y: Floats) -> tuple[float, ...]:
    """Begin a little above the greatest value, with the line through the logits."""
    top = float(np.max(y)) * 1.05 if np.max(y) > 0 else float(np.min(y)) * 1.05
    share = np.clip(y / top if top else y, 1e-3, 1 - 1e-3)
    slope, level = np.polyfit(x, np.log(share / (1 - share)), 1)
    return top, float(slope) or 1.0, float(-level / slope) if slope else float(np.mean(x))


MODELS: dict[ModelName, Model] = {
    ModelName.EXPONENTIAL: Model("a exp(b x)", ("a", "b"), _exponential),
    ModelName.POWER: Model("a x^b", ("a", "b"), _power),
    ModelName.SINUSOIDAL: Model("a sin(b x + c) + d", ("a", "b", "c", "d"), _sinusoidal),
    ModelName.LOGISTIC: Model("a/(1 + exp(-b (x - c)))", ("a", "b", "c"), _logistic),
}
