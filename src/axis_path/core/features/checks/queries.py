"""The sampling check: points of a function that are shown over its curve, and what they miss."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.catalogue.units import NO_UNIT, UnitProduct
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.deadline import calculation
from axis_path.core.draw import Window, check_sampling, sample_curve
from axis_path.core.draw.pixels import dot_tenths
from axis_path.core.errors import DomainError, LimitError, MathError
from axis_path.core.features.checks.section import Check, SamplingCheck
from axis_path.core.kinds.states import States
from axis_path.core.limits import CHECK_POINTS


class Checks:
    """The sampling check of a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._numbers = snapshot.query(Numbers)

    def check_points(
        self, check: Check, domain: tuple[float, float], unit: UnitProduct = NO_UNIT
    ) -> NDArray[np.float64]:
        """Return the abscissae of a sampling check over an interval of x, (n,) floats.

        Args:
            check: as it was typed.
            domain: from where to where.
            unit: of both, and of a step without one.

        Raises:
            MathError: the count or the step cannot be.
        """
        low, high = domain
        if check.step:
            step = self._numbers.positive(check.step, unit)
            if (high - low) / step > CHECK_POINTS.value:
                raise LimitError(f"A sampling check has {CHECK_POINTS.value:,} points at most.")
            steps = np.arange(int((high - low) / step + 1e-9) + 1)
            return np.asarray(low + step * steps, dtype=np.float64)
        count = self._numbers.number(check.count)
        if (
            count.exact is None
            or count.exact.q != 1
            or not 2 <= int(count.exact.p) <= (CHECK_POINTS.value)
        ):
            words = f"A sampling check has a whole number of points, 2 to {CHECK_POINTS.value:,}."
            raise DomainError(words, position=(0, len(check.count)))
        return np.linspace(low, high, int(count.exact.p))

    def drawn(self, window: Window) -> dict[str, Any] | None:
        """Return the sampling check that is stored with the study, as plain data."""
        check = self._snapshot.section(SamplingCheck).check
        if check is None:
            return None
        function = self._snapshot.query(States).state.functions.get(check.line)
        if function is None:
            return None
        shown = {"line": check.line, "count": check.count, "step": check.step}
        try:
            with calculation():
                curve = sample_curve(function, window)
                if curve.domain is None:
                    sentence = f"The domain of {function.name} lies outside the window."
                    return shown | {"points": [], "sentence": sentence}
                xs = self.check_points(check, curve.domain, function.units.variable)
                outcome = check_sampling(function, curve, window, xs)
        except MathError as err:
            return shown | {"points": [], "sentence": err.message}
        known = outcome.points[np.isfinite(outcome.points).all(axis=1)]
        return shown | {"points": dot_tenths(known, window), "sentence": outcome.sentence}
