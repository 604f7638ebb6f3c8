"""The numbers that stand for names while a study is computed."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from fractions import Fraction


class Values(dict[str, Fraction]):
    """The values of sliders; other numbers are computed when they are first asked for.

    Only the sliders are listed. What is computed depends on them alone.
    """

    def __init__(self, sliders: Mapping[str, Fraction], compute: Callable[[str], Fraction]) -> None:
        super().__init__(sliders)
        self._compute = compute
        self._computed: dict[str, Fraction] = {}

    def __missing__(self, name: str) -> Fraction:
        """Compute a number."""
        if name not in self._computed:
            self._computed[name] = self._compute(name)
        return self._computed[name]
