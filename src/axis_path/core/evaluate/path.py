"""A path in the plane: two coordinates that depend on one parameter."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Enclosure
from axis_path.core.evaluate.backends.enclosed import enclose_columns, middles
from axis_path.core.evaluate.expression import Expression
from axis_path.core.evaluate.function import End, RealFunction

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class RealPath:
    """A path with the present values of its sliders.

    Attributes:
        x: the first coordinate as a function of the parameter; ``y`` the second. Both have the
            domain of the path, with a lower and an upper end.
        assumed: the ends, ``low`` and ``high``, that the line does not give and that are taken.
    """

    x: RealFunction
    y: RealFunction
    assumed: frozenset[str] = frozenset()

    @property
    def name(self) -> str:
        """Return the name of the path."""
        return self.x.name

    @property
    def variable(self) -> str:
        """Return the name of the parameter."""
        return self.x.variable

    @property
    def low(self) -> End:
        """Return the lower end of the parameter."""
        if self.x.low is None:
            raise ValueError("a path has a lower end")
        return self.x.low

    @property
    def high(self) -> End:
        """Return the upper end of the parameter."""
        if self.x.high is None:
            raise ValueError("a path has an upper end")
        return self.x.high

    def enclose(
        self, lows: Floats, highs: Floats, both: tuple[Expression, Expression] | None = None
    ) -> list[Enclosure]:
        """Enclose x and y over columns of the parameter.

        Args:
            lows: where the columns begin, (n,).
            highs: where they end.
            both: two expressions made from the coordinates, to be enclosed in place of them.
        """
        x, y = both or (self.x.expression, self.y.expression)
        program = x.together(y)
        return enclose_columns(program, (lows, highs), self.x.parameters)

    def points_near(self, ts: Floats) -> Floats:
        """Return the points at ``ts`` as if the path had no domain, (n, 2): middles of enclosures.

        For few places this is quicker than ``points``.
        """
        x, y = self.enclose(ts, ts)
        return np.column_stack([middles(x), middles(y)])

    def compiled(self, both: tuple[Expression, Expression] | None = None) -> tuple[Any, ...] | None:
        """Return x and y as compiled code takes them, or two expressions in place of them."""
        return self.x.compiled(*(both or (self.x.expression, self.y.expression)))

    def points(self, ts: Floats) -> Floats:
        """Return the points at the parameters ``ts``, (n, 2); NaN where there is none."""
        return np.column_stack([self.x.sample(ts), self.y.sample(ts)])
