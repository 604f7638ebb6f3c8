"""What is asked of sliders: their values, their ranges, and who needs them."""

from __future__ import annotations

from fractions import Fraction

from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import MathError, SliderError
from axis_path.core.lines.sliders import Slider, SliderRange, literal


class Sliders:
    """The sliders of a study: letters with a number, and a range to move in."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._numbers = snapshot.query(Numbers)

    def slider_of(self, line_id: int) -> tuple[str, Fraction, Slider]:
        """Return the name, the value and the range of a slider.

        Raises:
            KeyError: there is no such line; SliderError: it is no slider.
        """
        line = self._snapshot.line(line_id)
        moving = self._snapshot.moving(line)
        if moving is not None and line.slider is not None:
            return *moving, line.slider
        definition = self._snapshot.definition(line_id)
        if line.slider is None or not definition.typed:
            raise SliderError("This line has no slider any more.")
        _, _, text = line.text.partition("=")
        return definition.name or "", self._numbers.rational(text), line.slider

    def slider_range(self, line_id: int) -> SliderRange:
        """Return the range of a slider for the present values of its ends.

        Raises:
            MathError: an end has no value, depends on the slider, or nothing moves between them.
        """
        name, _, slider = self.slider_of(line_id)
        low, high, step = (
            self._part(name, what, text)
            for what, text in (
                ("lower end", slider.low),
                ("upper end", slider.high),
                ("step", slider.step),
            )
        )
        return slider.range(low, high, step)

    def ranges(self) -> dict[int, SliderRange | MathError]:
        """Return the ranges of all sliders by the ids of their lines, or why one has none."""
        by_line: dict[int, SliderRange | MathError] = {}
        for line in self._snapshot.lines:
            if line.slider is None or line.disabled:
                continue
            if self._snapshot.moving(line) is not None or self._snapshot.definition(line.id).typed:
                try:
                    by_line[line.id] = self.slider_range(line.id)
                except MathError as err:
                    by_line[line.id] = err
        return by_line

    def users(self, name: str) -> list[str]:
        """Return the names of the lines that need a name, those of sliders by their ends too."""
        names = self._snapshot.analysis.users(name)
        needed = {name, *names}
        return names + [
            own for own, used in self.end_uses().items() if used & needed and own not in names
        ]

    def end_uses(self) -> dict[str, frozenset[str]]:
        """Return what the ends and steps of sliders use, by the names of the sliders."""
        uses: dict[str, frozenset[str]] = {}
        for line in self._snapshot.lines:
            moving = self._snapshot.moving(line)
            if moving is None or line.slider is None or line.disabled:
                continue
            used = frozenset[str]().union(*map(self._numbers.uses, line.slider.texts))
            if used:
                uses[moving[0]] = used
        return uses

    def _part(self, name: str, what: str, text: str) -> Fraction:
        known = literal(text)
        if known is not None:
            return known
        analysis, unit = self._snapshot.analysis, self._snapshot.unit_of_slider(name)
        _, used = analysis.constant(text, unit)
        if used & {name, *analysis.users(name)}:
            raise SliderError(f"The {what} of `{name}` depends on `{name}` itself.")
        return self._numbers.rational(text, unit)
