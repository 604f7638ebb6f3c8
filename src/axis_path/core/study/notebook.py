"""The lines of a study and how they are changed: written, deleted, hidden, moved by sliders."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction
from functools import cached_property, lru_cache
from typing import Any, ClassVar, Self

from axis_path.core.errors import (
    DomainError,
    LimitError,
    MathError,
    SliderError,
    UnknownNameError,
)
from axis_path.core.language import (
    FunctionLine,
    ParameterLine,
    Vocabulary,
    head_name,
    is_function_head,
    nearest,
    read_line,
    spelled,
    typeset_line,
)
from axis_path.core.language.tree import AngleUnit, Negative, Number
from axis_path.core.limits import LINES
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
from axis_path.core.study.sliders import (
    SliderRange,
    exact_number,
    guessed_range,
    slider_value,
    written_number,
)

#: How a number may be given: a float stands for its shortest decimal, a text is an expression.
GivenNumber = float | int | Fraction | str
_NAMES = "fghpq"


class Notebook:
    """Lines, each a definition or a note, in the order they were written.

    The methods that change it leave it as it was when they raise.
    """

    #: What is computed from the document, to be forgotten when it changes.
    _derived: ClassVar[tuple[str, ...]] = ("_analysis", "_values", "_state")

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
        for name in self._derived:
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
        for line, meaning in zip(self.lines, self._analysis.meanings, strict=True):
            if line.id == line_id:
                return self._definition(line, meaning)
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
            mathml = typeset_line(_slider_line(*slider), slider[0])
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
        value: GivenNumber,
        low: GivenNumber | None = None,
        high: GivenNumber | None = None,
        step: GivenNumber | None = None,
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

    @cached_property
    def _analysis(self) -> Analysis:
        keys = []
        for line in self.lines:
            slider = slider_value(line.text)
            # A slider stands with a fixed text: its value is no part of the analysis.
            text = line.text if slider is None else f"{slider[0]} = 0"
            keys.append(LineKey(text, line.aside, line.given, slider is not None))
        return analyse(self.unit, tuple(keys))


def _line_name(line: StudyLine) -> str | None:
    return head_name(line.text) or line.given


def _may_come(problem: MathError) -> bool:
    """Tell whether another line can cure a problem: then the line is taken as it is."""
    if problem.code == "language.no_value":
        return True
    if not isinstance(problem, UnknownNameError):
        return False
    # A near miss is a slip of the hand; a product of unknown letters may be a name to come.
    return problem.suggestion is None or bool(problem.letters)


def _slider_line(name: str, value: Fraction) -> ParameterLine:
    """Give the line of a slider without reading its text, which changes with every frame."""
    size = Number(abs(value), written_number(abs(value)))
    return ParameterLine(name, size if value >= 0 else Negative(size), (0, 0))


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


@lru_cache(maxsize=1024)
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
