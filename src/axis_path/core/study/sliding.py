"""A notebook whose numbers can be computed, and whose letters can be moved."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from fractions import Fraction
from typing import Self

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.errors import DomainError, SliderError
from axis_path.core.evaluate import VALUE_BITS, Constant, evaluate_constant
from axis_path.core.language import line_nodes, spelled
from axis_path.core.study.guess import guess_slider
from axis_path.core.study.line import StudyLine
from axis_path.core.study.meaning import name_in_head
from axis_path.core.study.notebook import Notebook
from axis_path.core.study.sliders import (
    Slider,
    SliderKind,
    SliderRange,
    exact_number,
    guessed_range,
    literal,
    slider_value,
    written_number,
)

#: How a number may be given: a float stands for its shortest decimal, a text is an expression.
GivenNumber = float | int | Fraction | str
_LARGEST = Fraction(10) ** 100


class Sliding(Notebook):
    """Lines of which some are sliders: a letter with a number, and a range to move in."""

    def number(self, given: GivenNumber | Ball) -> Ball:
        """Return a number, or a text such as ``2pi``, as a ball that keeps its exact form.

        Raises:
            MathError: the text has no value.
        """
        if isinstance(given, Ball):
            return given
        if isinstance(given, str):
            expression, _ = self._analysis.constant(given)
            found = evaluate_constant(expression, self._values, bits=VALUE_BITS)
            if found.defined is not Defined.YES:
                reason = found.reason or "it could not be decided"
                raise DomainError(f"`{given}` has no value: {reason}.", position=(0, len(given)))
            return Constant.of(found, expression)
        with precision(VALUE_BITS):
            return ball.from_fraction(exact_number(given))

    def positive(self, text: str) -> float:
        """Return a typed number that is above zero, such as a step.

        Raises:
            MathError: it has no value, or is not above zero.
        """
        found = self.number(text)
        if found.sign() != 1:
            raise DomainError(f"`{text}` is not above zero.", position=(0, len(text)))
        return float(found.value.mid())

    def rational(self, given: GivenNumber) -> Fraction:
        """Return a number as a fraction: of one that is none, the nearest float's shortest decimal.

        Raises:
            MathError: a text has no value, or one that is no real number.
        """
        if not isinstance(given, str):
            return exact_number(given)
        known = literal(given)
        if known is not None:
            return known
        found = self.number(given)
        if found.exact is not None:
            return Fraction(int(found.exact.p), int(found.exact.q))
        return exact_number(float(found.value.mid()))

    def names_used(self, text: str) -> frozenset[str]:
        """Return the names of the study that a typed number uses; none if it does not read."""
        return self._uses(text) & frozenset(self.names())

    # Sliders

    def set(
        self,
        name: str,
        value: GivenNumber,
        low: GivenNumber | None = None,
        high: GivenNumber | None = None,
        step: GivenNumber | None = None,
    ) -> None:
        """Set the value of a slider, and its range if one is given; a new name makes a new slider.

        Args:
            name: the letter.
            value: a number, or an expression for one.
            low: the lower end; an expression is kept as it is, and followed.
            high: the same for the upper end.
            step: the same for the distance of its values.

        Raises:
            MathError: the name is no slider, its range cannot be, or a text has no value.
        """
        name, exact = spelled(name), self.rational(value)
        if abs(exact) > _LARGEST:
            raise SliderError("The value of a slider is too large.")
        line = next((each for each in self.lines if _line_name(each) == name), None)
        is_slider = line is not None and self.definition(line.id).slider is not None
        if line is not None and not is_slider:
            what = "a constant" if slider_value(line.text) else "computed from other names"
            raise SliderError(f"`{name}` is {what}; it is no slider.")
        present = line.slider if line is not None and line.slider else guessed_range(exact)
        _check_kind(name, present, exact)
        texts = zip((low, high, step), present.texts, strict=True)
        chosen = present.with_texts(
            *(kept if given is None else _written(given) for given, kept in texts)
        )
        line_id = line.id if line is not None else self._next_id()
        self._put(line_id, name, exact, chosen)

    def _put(self, line_id: int, name: str, value: Fraction, slider: Slider) -> None:
        before = self._document
        try:
            self.write(line_id, f"{name} = {written_number(value)}")
            self._check_slider(line_id, slider)
        except Exception:
            self._change(before)
            raise

    def _check_slider(self, line_id: int, slider: Slider) -> None:
        problem = self.definition(line_id).problem
        if problem is not None:
            raise problem
        if self.line(line_id).slider != slider:
            lines = [replace(e, slider=slider) if e.id == line_id else e for e in self.lines]
            self._change_lines(lines)
            self.slider_range(line_id)

    def slider_of(self, line_id: int) -> tuple[str, Fraction, Slider]:
        """Return the name, the value and the range of a slider.

        Raises:
            KeyError: there is no such line; SliderError: it is no slider.
        """
        line = self.line(line_id)
        if line.moving is not None and line.slider is not None:
            return *line.moving, line.slider
        definition = self.definition(line_id)
        if line.slider is None or not definition.typed:
            raise SliderError("This line has no slider any more.")
        _, _, text = line.text.partition("=")
        return definition.name or "", self.rational(text), line.slider

    def type_value(self, line_id: int, text: str) -> None:
        """Set a slider to a value as it was typed: ``pi/2`` stays ``pi/2``.

        What depends on other lines is taken as the number that it is now.

        Raises:
            MathError: the text has no value, or one that the slider cannot take.
        """
        name, _, slider = self.slider_of(line_id)
        value = literal(text)
        if value is not None or self.names_used(text):
            self.set(name, self.rational(text) if value is None else value)
            return
        exact = self.rational(text)
        if abs(exact) > _LARGEST:
            raise SliderError("The value of a slider is too large.")
        _check_kind(name, slider, exact)
        before = self._document
        self.write(line_id, f"{name} = {text}")
        problem = self.definition(line_id).problem
        if problem is not None:
            self._change(before)
            raise problem

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

    def _part(self, name: str, what: str, text: str) -> Fraction:
        known = literal(text)
        if known is not None:
            return known
        _, used = self._analysis.constant(text)
        if used & {name, *self._analysis.users(name)}:
            raise SliderError(f"The {what} of `{name}` depends on `{name}` itself.")
        return self.rational(text)

    def users(self, name: str) -> list[str]:
        """Return the names of the lines that need a name, those of sliders by their ends too."""
        found = super().users(name)
        needed = {name, *found}
        return found + [
            own for own, used in self.end_uses().items() if used & needed and own not in found
        ]

    def end_uses(self) -> dict[str, frozenset[str]]:
        """Return what the ends and steps of sliders use, by the names of the sliders."""
        found: dict[str, frozenset[str]] = {}
        for line in self.lines:
            if line.moving is None or line.slider is None or line.aside:
                continue
            used = frozenset[str]().union(*map(self._uses, line.slider.texts))
            if used:
                found[line.moving[0]] = used
        return found

    def _uses(self, text: str) -> frozenset[str]:
        return frozenset() if literal(text) is not None else self._analysis.uses_of(text)

    def change_slider(self, line_id: int, slider: Slider) -> None:
        """Keep another range of a slider, or another way to play.

        Raises:
            MathError: the range cannot be; the study stays as it was.
        """
        name, value, _ = self.slider_of(line_id)
        self._put(line_id, name, value, slider)

    def widen_slider(self, line_id: int) -> None:
        """Move an end of a slider to its value, if that lies beyond it."""
        _, value, slider = self.slider_of(line_id)
        chosen = self.slider_range(line_id)
        low = slider.low if value >= chosen.low else written_number(value)
        high = slider.high if value <= chosen.high else written_number(value)
        self.change_slider(line_id, replace(slider, low=low, high=high))

    def at(self, values: Mapping[str, Fraction]) -> Self:
        """Return the study with some sliders at other values, which its lines do not show."""
        other = self.copy()
        for line in self.lines:
            # A value that was typed as an expression is a part of its line.
            name = self.definition(line.id).name if line.moving is None and line.slider else None
            if name is not None and name in values:
                other.write(line.id, f"{name} = {written_number(values[name])}")
        other.__dict__["_values"] = {**self._values, **values}
        other.__dict__.pop("_kept_state", None)
        return other

    def make_sliders(self, names: Sequence[str]) -> None:
        """Make sliders of letters without a value, with ranges guessed from their use.

        Raises:
            MathError: one of them can be no slider.
        """
        read = [meaning.line for meaning in self._analysis.meanings]
        nodes = [node for line in read if line is not None for node in line_nodes(line)]
        before = self._document
        try:
            for name in map(spelled, names):
                value, slider = guess_slider(name, nodes, self.unit)
                self._put(self._next_id(), name, value, slider)
        except Exception:
            self._change(before)
            raise

    def fix(self, line_id: int, *, fixed: bool) -> None:
        """Turn a slider into a constant, which nothing moves, or a constant into a slider.

        Raises:
            SliderError: the line is no number.
        """
        line = self.line(line_id)
        if slider_value(line.text) is None:
            raise SliderError("Only a letter with a number can be a slider or a constant.")
        self._change_lines([replace(e, fixed=fixed) if e is line else e for e in self.lines])


def _line_name(line: StudyLine) -> str | None:
    return name_in_head(line.text) or line.given


def _written(given: GivenNumber) -> str:
    return given.strip() if isinstance(given, str) else written_number(exact_number(given))


def _check_kind(name: str, slider: Slider, value: Fraction) -> None:
    """Refuse a value that a slider of whole numbers cannot take.

    Raises:
        SliderError: it is not whole.
    """
    if slider.kind is SliderKind.WHOLE and value.denominator != 1:
        raise SliderError(f"The slider `{name}` takes whole numbers only.")
