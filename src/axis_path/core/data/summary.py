"""What a column looks like: count, mean, spread, quartiles, and the bars of its histogram."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axis_path.core.data.column import Column
from axis_path.core.errors import DataError

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Summary:
    """A column in a few numbers.

    Attributes:
        count: of cells with a number; ``missing`` of those without.
        sd: the standard deviation of a sample, NaN for one number.
        quartiles: the first, the median, and the third: medians of the halves, without the middle.
        edges: of the bars of a histogram, (k + 1,).
        heights: how many numbers lie in each bar, (k,).
    """

    count: int
    missing: int
    mean: float
    sd: float
    least: float
    quartiles: tuple[float, float, float]
    greatest: float
    edges: Floats
    heights: Floats


def summarise(column: Column) -> Summary:
    """Summarise a column; the mean and the deviation are computed exactly and rounded once.

    Raises:
        DataError: it has no number.
    """
    known = sorted(cell for cell in column.cells if cell is not None)
    if not known:
        raise DataError(f"`{column.name}` has no number.")
    count = len(known)
    mean = sum(known) / count
    squares = sum((cell - mean) ** 2 for cell in known)
    half = count // 2
    values = np.array([float(cell) for cell in known])
    lower, upper = values[:half] if half else values, values[count - half :] if half else values
    heights, edges = np.histogram(values, bins="auto" if count > 1 else 1)
    return Summary(
        count, len(column.cells) - count, float(mean),
        math.sqrt(squares / (count - 1)) if count > 1 else math.nan,
        float(known[0]),
        (float(np.median(lower)), float(np.median(values)), float(np.median(upper))),
        float(known[-1]), edges, heights.astype(np.float64),
    )  # fmt: skip
