"""The facade: a study with its lines, sliders and what is asked of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction
from functools import cached_property
from typing import Any, Self

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.draw import HOME_X, Curve, Window, sample_curve
from axis_path.core.errors import (
    DomainError,
    LimitError,
    MathError,
    SliderError,
    UnknownNameError,
)
from axis_path.core.evaluate import (
    VALUE_BITS,
    End,
    Expression,
    RealFunction,
    Result,
    evaluate_constant,
    make_result,
)
from axis_path.core.language import (
    FunctionLine,
    Vocabulary,
    head_name,
    is_function_head,
    nearest,
    read_expression,
    read_line,
    spelled,
    typeset_line,
)
from axis_path.core.language.tree import AngleUnit
from axis_path.core.limits import LINES
from axis_path.core.locate import Findings, Interval, find_zeros
from axis_path.core.study.analysis import Analysis, Kind, LineKey, Meaning, analyse
from axis_path.core.study.definition import Definition
from axis_path.core.study.document import (
    Ask,
    Document,
    TableSpec,
    document_from_dict,
    document_to_dict,
)
from axis_path.core.study.line import StudyLine
from axis_path.core.study.scene import READING_DIGITS, Scene, State, make_readings, make_scene
from axis_path.core.study.sliders import (
    SliderRange,
    exact_number,
    guessed_range,
    slider_value,
    written_number,
)
from axis_path.core.tabulate import Places, ValueTable, counted, listed, make_table, spaced

Number = float | int | Fraction | str
_NAMES = "fghpq"


class Study:
    """A study: lines, each a definition or a note, in the order they were written.

    The methods that change it leave it as it was when they raise.
    """

    def __init__(self, angle_unit: str = "radians") -> None:
        """Begin an empty study in ``radians`` or ``degrees``."""
        self._document = Document(AngleUnit(angle_unit))

    # What is kept

    def to_dict(self) -> dict[str, Any]:
        """Give the study in the open study format."""
        return document_to_dict(self._document)

    @classmethod
    def from_dict(cls, given: object) -> Self:
        """Read a study from the open study format.

        Raises:
            FormatError: it is no study, or damaged.
        """
        study = cls()
        study._document = document_from_dict(given)
        return study

    def copy(self) -> Self:
        """Give a study of its own with the same lines."""
        other = type(self)()
        other._document = self._document
        return other

    def _change(self, document: Document) -> None:
        self._document = document
        for name in ("_analysis", "_values", "_state"):
            self.__dict__.pop(name, None)

    def _change_lines(self, lines: Sequence[StudyLine]) -> None:
        if len(lines) > LINES.value:
            raise LimitError(f"A study can have {LINES.value} lines.")
        self._change(replace(self._document, lines=_settled(tuple(lines), self.unit)))

    @property
    def unit(self) -> AngleUnit:
        """Give the unit of angles."""
        return self._document.unit

    @property
    def lines(self) -> tuple[StudyLine, ...]:
        """Give all lines as they are kept."""
        return self._document.lines

    @property
    def asks(self) -> tuple[Ask, ...]:
        """Give the searches that are kept with the study."""
        return self._document.asks

    @property
    def table(self) -> TableSpec:
        """Give the start, stop and step of the table of values."""
        return self._document.table

    def set_unit(self, angle_unit: str) -> None:
        """Measure angles in ``radians`` or ``degrees``."""
        self._change(replace(self._document, unit=AngleUnit(angle_unit)))

    def set_table(self, table: TableSpec) -> None:
        """Keep the start, stop and step of the table of values."""
        self._change(replace(self._document, table=table))

    def set_asks(self, asks: Sequence[Ask]) -> None:
        """Keep other searches with the study."""
        self._change(replace(self._document, asks=tuple(asks)))

    # Lines

    def define(self, text: str) -> Definition:
        """Write a line, or write the line of the same name anew.

        A letter that has no value yet, or a name that no other line defines yet, is no error: the
        definition then has a ``problem`` and begins to work when the value is there.

        Raises:
            MathError: the text does not read; the study stays as it was.
        """
        name = head_name(text)
        other = next((line for line in self.lines if _line_name(line) == name), None)
        before = self._document
        line_id = other.id if name is not None and other is not None else self._next_id()
        self.write(line_id, text)
        made = self.definition(line_id)
        if made.problem is not None and not _may_come(made.problem):
            self._change(before)
            raise made.problem
        return made

    def write(self, line_id: int, text: str, *, after: int | None = None) -> None:
        """Write or replace a line, whether it reads or not; it is kept with its problem.

        Args:
            line_id: the line; one that is not there yet is added.
            text: what was typed.
            after: the line after which a new one stands; at the end by default.

        Raises:
            LimitError: too many lines.
        """
        lines = list(self.lines)
        index = next((k for k, line in enumerate(lines) if line.id == line_id), None)
        if index is not None:
            lines[index] = replace(lines[index], text=text)
        else:
            place = next((k + 1 for k, line in enumerate(lines) if line.id == after), len(lines))
            lines.insert(place, StudyLine(line_id, text))
        self._change_lines(lines)

    def remove(self, name: str) -> None:
        """Delete the line that defines a name.

        Raises:
            UnknownNameError: there is none.
        """
        self.remove_line(self._line_of(name).id)

    def remove_line(self, line_id: int) -> None:
        """Delete a line, and the searches that were about it."""
        lines = tuple(line for line in self.lines if line.id != line_id)
        asks = tuple(ask for ask in self.asks if ask.line != line_id)
        self._change(replace(self._document, lines=lines, asks=asks))

    def mark_line(
        self, line_id: int, *, hidden: bool | None = None, aside: bool | None = None
    ) -> None:
        """Hide a line or show it; set it aside or take it back."""
        self._change_lines(
            [
                replace(
                    line,
                    hidden=line.hidden if hidden is None else hidden,
                    aside=line.aside if aside is None else aside,
                )
                if line.id == line_id
                else line
                for line in self.lines
            ]
        )

    def names(self) -> list[str]:
        """Give the names that are defined, in the order of the lines."""
        return [
            meaning.name
            for line, meaning in zip(self.lines, self._analysis.meanings, strict=True)
            if meaning.name is not None and not line.aside
        ]

    def definition(self, line_id: int) -> Definition:
        """Give a line with its meaning.

        Raises:
            KeyError: there is no such line.
        """
        for made in self.definitions():
            if made.id == line_id:
                return made
        raise KeyError(line_id)

    def definitions(self) -> list[Definition]:
        """Give all lines with their meanings."""
        return [
            self._definition(line, meaning)
            for line, meaning in zip(self.lines, self._analysis.meanings, strict=True)
        ]

    def _definition(self, line: StudyLine, meaning: Meaning) -> Definition:
        mathml = meaning.mathml
        slider = slider_value(line.text)
        if slider is not None and meaning.kind is Kind.PARAMETER:
            mathml = typeset_line(_read_alone(line.text), slider[0])
        variable = getattr(meaning.line, "variable", None)
        return Definition(
            line.id, meaning.name, meaning.kind, line.text, mathml, meaning.domain_mathml,
            variable, None if line.aside else meaning.problem, line.hidden, line.aside, line.tone,
            line.slider if slider is not None else None,
            slider[1] if slider is not None else None, meaning.uses,
        )  # fmt: skip

    def _next_id(self) -> int:
        return max((line.id for line in self.lines), default=0) + 1

    def next_id(self) -> int:
        """Give the number that the next new line would have."""
        return self._next_id()

    def line(self, line_id: int) -> StudyLine:
        """Give a line as it is kept.

        Raises:
            KeyError: there is no such line.
        """
        for line in self.lines:
            if line.id == line_id:
                return line
        raise KeyError(line_id)

    def function_line(self, line_id: int) -> FunctionLine:
        """Give the line of a function as it was read.

        Raises:
            KeyError: there is no such line; DomainError: it is no function that can be read.
        """
        for line, meaning in zip(self.lines, self._analysis.meanings, strict=True):
            if line.id == line_id:
                if isinstance(meaning.line, FunctionLine):
                    return meaning.line
                raise DomainError("Only a function has a domain.")
        raise KeyError(line_id)

    def _line_of(self, name: str) -> StudyLine:
        name = spelled(name)
        for line, meaning in zip(self.lines, self._analysis.meanings, strict=True):
            if meaning.name == name and not line.aside:
                return line
        near = nearest(name, frozenset(self.names()))
        hint = f" Did you mean `{near}`?" if near else ""
        raise UnknownNameError(f"`{name}` is not defined.{hint}", suggestion=near)

    # Sliders

    def set(
        self,
        name: str,
        value: Number,
        low: Number | None = None,
        high: Number | None = None,
        step: Number | None = None,
    ) -> None:
        """Give a slider its value, and its range if one is given; a new name makes a new slider.

        Raises:
            SliderError: the name is no slider, or its range cannot be.
        """
        name = spelled(name)
        exact = exact_number(value)
        if abs(exact) > Fraction(10) ** 100:
            raise SliderError("The value of a slider goes too far.")
        line = next((each for each in self.lines if _line_name(each) == name), None)
        if line is not None and slider_value(line.text) is None:
            raise SliderError(f"`{name}` is computed from other names; it is no slider.")
        present = line.slider if line is not None and line.slider else guessed_range(exact)
        chosen = SliderRange(
            present.low if low is None else exact_number(low),
            present.high if high is None else exact_number(high),
            present.step if step is None else exact_number(step),
        )
        text = f"{name} = {written_number(exact)}"
        line_id = line.id if line is not None else self._next_id()
        before = self._document
        self.write(line_id, text)
        problem = self.definition(line_id).problem
        if problem is not None:
            self._change(before)
            raise problem
        self._change_lines(
            [replace(e, slider=chosen) if e.id == line_id else e for e in self.lines]
        )

    @cached_property
    def _values(self) -> dict[str, Fraction]:
        found = (slider_value(line.text) for line in self.lines if not line.aside)
        return dict(pair for pair in found if pair is not None)

    # Meaning

    @cached_property
    def _analysis(self) -> Analysis:
        keys = []
        for line in self.lines:
            slider = slider_value(line.text)
            # A slider stands with a fixed text: its value is no part of the analysis.
            text = line.text if slider is None else f"{slider[0]} = 0"
            keys.append(LineKey(text, line.aside, line.given, slider is not None))
        return analyse(self.unit, tuple(keys))

    def evaluate(self, text: str) -> Result:
        """Compute an expression.

        Raises:
            MathError: it does not read, or needs a value that is missing.
        """
        expression = self._constant(text)
        values = dict(self._values)
        return make_result(lambda bits: evaluate_constant(expression, values, bits=bits))

    def _constant(self, text: str) -> Expression:
        node = read_expression(text, self._analysis.vocabulary())
        return self._analysis.compile_constant(node)

    def number(self, given: Number | Ball) -> Ball:
        """Give a number, or a text such as ``2pi``, as a ball that keeps its exact form.

        Raises:
            MathError: the text has no value.
        """
        if isinstance(given, Ball):
            return given
        if isinstance(given, str):
            expression = self._constant(given)
            found = evaluate_constant(expression, self._values, bits=VALUE_BITS)
            if found.defined is not Defined.YES:
                reason = found.reason or "it could not be decided"
                raise DomainError(f"`{given}` has no value: {reason}.", position=(0, len(given)))
            return found
        with precision(VALUE_BITS):
            return ball.from_fraction(exact_number(given))

    def function(self, name: str) -> RealFunction:
        """Give a function with the present values of the sliders.

        Raises:
            MathError: the name is not defined, is no function, or has a problem.
        """
        line = self._line_of(name)
        definition = self.definition(line.id)
        return self._real_function(definition)

    def _real_function(self, definition: Definition) -> RealFunction:
        if definition.problem is not None:
            raise definition.problem
        if definition.kind is not Kind.FUNCTION or definition.name is None:
            raise UnknownNameError(f"`{definition.name}` is no function.")
        compiled = self._analysis.compile_function(definition.name)
        domain = self.function_line(definition.id).domain
        low, high = (
            None
            if expression is None or bound is None
            else End(self._bound(expression, definition), bound.closed)
            for expression, bound in ((compiled.low, domain.low), (compiled.high, domain.high))
        )
        return RealFunction(
            definition.name, definition.variable or "x", compiled.expression, self._values,
            low, high, tuple(self._bound(each, definition) for each in compiled.without),
        )  # fmt: skip

    def _bound(self, expression: Expression, definition: Definition) -> Ball:
        found = evaluate_constant(expression, self._values, bits=VALUE_BITS)
        if found.defined is not Defined.YES:
            reason = found.reason or "not decided"
            raise DomainError(
                f"An end of the domain of `{definition.name}` has no value: {reason}.",
                position=(0, len(definition.text)),
            )
        return found

    def functions(self) -> list[tuple[Definition, RealFunction]]:
        """Give the functions that work and are not hidden, with their lines."""
        state = self._state
        return [
            (definition, state.functions[definition.id])
            for definition in state.definitions
            if definition.id in state.functions and not definition.hidden
        ]

    # Questions

    def curve(self, name: str, window: Window) -> Curve:
        """Draw a function in a window.

        Raises:
            MathError: the name is not a function that works.
        """
        return sample_curve(self.function(name), window)

    def zeros(self, name: str, low: Number | None = None, high: Number | None = None) -> Findings:
        """Locate all zeros of a function.

        Args:
            name: the function.
            low: where to begin; by default the lower end of its domain, or that of the window a
                study begins with.
            high: the same for the upper end.

        Raises:
            MathError: the name is not a function that works, or the ends have no value.
        """
        function = self.function(name)
        return find_zeros(function, self.interval(function, low, high))

    def interval(
        self, function: RealFunction, low: Number | Ball | None, high: Number | Ball | None
    ) -> Interval:
        """Give where to search: what is given, else the domain, else the first window.

        Raises:
            DomainError: there is nothing between the ends.
        """
        ends = []
        for given, own, home in ((low, function.low, HOME_X[0]), (high, function.high, HOME_X[1])):
            if given is not None:
                ends.append(self.number(given))
            else:
                ends.append(own.value if own is not None else self.number(home))
        with precision(VALUE_BITS):
            if ball.subtract(ends[1], ends[0]).sign() != 1:
                raise DomainError("The search needs a lower end that is less than its upper end.")
        return Interval(ends[0], ends[1])

    def values(
        self,
        names: Sequence[str],
        start: Number | None = None,
        stop: Number | None = None,
        step: Number | None = None,
        *,
        count: int | None = None,
        x: Sequence[Number] | None = None,
    ) -> ValueTable:
        """Make a table of values: by start, stop and step, or count, or at places of one's own.

        Raises:
            MathError: a name is not a function that works, or the table cannot be made.
        """
        functions = {name: self.function(name) for name in names}
        return make_table(functions, self.places(start, stop, step, count=count, x=x))

    def scene(self, window: Window, *, reading_x: float | None = None) -> Scene:
        """Put together everything the bench draws in a window, as plain data.

        Args:
            window: what part of the plane is seen.
            reading_x: where the reading line stands, in axis units; None for none.
        """
        return make_scene(self._state, window, reading_x=reading_x)

    def readings(self, window: Window, reading_x: float) -> dict[str, Any]:
        """Give the reading line alone, with every function's value there, as plain data."""
        return make_readings(self._state, window, reading_x)

    @cached_property
    def _state(self) -> State:
        definitions = self.definitions()
        state = State(definitions, {}, {}, {})
        for definition in definitions:
            if definition.aside or definition.problem is not None:
                continue
            if definition.kind is Kind.FUNCTION:
                try:
                    state.functions[definition.id] = self._real_function(definition)
                except DomainError as err:
                    state.problems[definition.id] = err
            elif definition.kind is Kind.PARAMETER and definition.value is None:
                result = self.evaluate(definition.name or "0")
                text = result.decimal(READING_DIGITS) or f"no value: {result.reason}"
                state.computed[definition.id] = text
        return state

    def places(
        self,
        start: Number | None,
        stop: Number | None,
        step: Number | None,
        *,
        count: int | None = None,
        x: Sequence[Number] | None = None,
    ) -> Places:
        """Give the abscissae of a table.

        Raises:
            MathError: they cannot be made from what is given.
        """
        if x is not None:
            return listed([self.number(each) for each in x])
        if start is None or stop is None or (step is None) == (count is None):
            raise ValueError("give start and stop with either step or count, or x")
        first, last = self.number(start), self.number(stop)
        if count is not None:
            return counted(first, last, count)
        return spaced(first, last, self.number(step if step is not None else 1))


def _line_name(line: StudyLine) -> str | None:
    return head_name(line.text) or line.given


def _may_come(problem: MathError) -> bool:
    """Tell whether another line can cure a problem: then the line is taken as it is."""
    if problem.code == "language.no_value":
        return True
    return isinstance(problem, UnknownNameError) and problem.suggestion is None


def _read_alone(text: str) -> Any:  # noqa: ANN401 - a parameter line
    return read_line(text, Vocabulary())


def _settled(lines: tuple[StudyLine, ...], unit: AngleUnit) -> tuple[StudyLine, ...]:
    """Give new functions their name and tone, new parameters their slider."""
    taken = {name for line in lines if (name := _line_name(line)) is not None}
    tones = {line.tone for line in lines}
    settled = []
    for line in lines:
        settled.append(_settle(line, taken, tones))
    return tuple(settled)


def _settle(line: StudyLine, taken: set[str], tones: set[int | None]) -> StudyLine:
    value = slider_value(line.text)
    if value is not None and line.slider is None:
        line = replace(line, slider=guessed_range(value[1]))
    named = head_name(line.text)
    is_text = line.text.lstrip().startswith("#") or not line.text.strip()
    is_function = not is_text and value is None
    if named is not None and line.given is not None:
        line = replace(line, given=None)
    if named is None and line.given is None and is_function and _reads(line.text):
        name = _free_name(taken)
        taken.add(name)
        line = replace(line, given=name)
    has_tone = is_function and (named is None or is_function_head(line.text))
    if has_tone and line.tone is None:
        tone = next(k for k in range(len(tones) + 1) if k not in tones)
        tones.add(tone)
        line = replace(line, tone=tone)
    return line


def _reads(text: str) -> bool:
    try:
        _read_alone(text)
    except MathError as err:
        return _may_come(err)
    return True


def _free_name(taken: set[str]) -> str:
    plain = next((name for name in _NAMES if name not in taken), None)
    if plain is not None:
        return plain
    number = 1
    while f"f_{number}" in taken:
        number += 1
    return f"f_{number}"
