"""The numbers that stand for names while a study is computed."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from axis_path.core.arithmetic.real_number import RealNumber


class Values(dict[str, RealNumber]):
    """The values of sliders; other numbers are computed when they are first asked for.

    Only the sliders are listed. What is computed depends on them alone.
    """

    def __init__(
        self, sliders: Mapping[str, RealNumber], compute: Callable[[str], RealNumber]
    ) -> None:
        super().__init__(sliders)
        self._compute = compute
        self._computed: dict[str, RealNumber] = {}

    def __missing__(self, name: str) -> RealNumber:
        """Compute a number."""
        if name not in self._computed:
            self._computed[name] = self._compute(name)
        return self._computed[name]
