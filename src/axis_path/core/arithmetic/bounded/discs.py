"""Numbers held as floats, real or complex, with bounds for how far off they are."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic.bounded.radii import Floats, Radii, Relative

#: Real floats, or complex numbers of two of them.
Numbers = NDArray[Any]


class Discs:
    """Numbers of which floats and bounds are known.

    Args:
        middles: (n,) finite floats or complex numbers.
        radii: bounds for the distance of each exact number from its middle.
    """

    __slots__ = ("bounds", "middles")

    def __init__(self, middles: Numbers, radii: Radii) -> None:
        self.middles = middles
        self.bounds = radii

    @property
    def radii(self) -> Floats:
        """Return how far each exact number is from its middle at the most, (n,)."""
        return self.bounds.all()

    @property
    def has_complex(self) -> bool:
        """Check whether the numbers are held as complex ones."""
        return np.iscomplexobj(self.middles)


def exactly(middles: Numbers) -> Discs:
    """Return floats as the numbers that they are."""
    return Discs(middles, Relative(middles, 0.0))
