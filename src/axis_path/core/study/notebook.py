"""The lines of a study and how they are changed: written, deleted, hidden, moved by sliders."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction
from typing import Any, ClassVar, Self

from axis_path.core.data import Column
from axis_path.core.errors import (
    DomainError,
    HaltedError,
    LimitError,
    MathError,
    NameTakenError,
    UnknownNameError,
)
from axis_path.core.language import (
    FunctionLine,
    ValueLine,
    nearest,
    spelled,
    typeset_line,
)
from axis_path.core.language.tree import AngleUnit, Negative, Number
from axis_path.core.limits import LINES, STUDY_DIGITS
from axis_path.core.study.analysis import Analysis, analyse
from axis_path.core.study.asking import Ask
from axis_path.core.study.axes import AxesSpec
from axis_path.core.study.definition import Definition
from axis_path.core.study.document import (
    Check,
    Document,
    Work,
    document_from_dict,
    document_to_dict,
)
from axis_path.core.study.family import Family
from axis_path.core.study.fit_ledger import FitAsk, Plot
from axis_path.core.study.line import StudyLine
from axis_path.core.study.meaning import Kind, LineKeys, Meaning, may_come, name_in_head
from axis_path.core.study.moving import Runner, Trail
from axis_path.core.study.naming import settle_line, settled
from axis_path.core.study.renaming import (
    check_new_name,
    renamed,
    renamed_ask,
    renamed_number,
    renamed_relation,
    renamed_table,
    with_head,
)
from axis_path.core.study.sliders import written_number
from axis_path.core.study.style import LineStyle
from axis_path.core.tabulate import TableSpec
from axis_path.core.threads import kept_property


class Notebook:
    """Lines, each a definition or a note, in the order they were written.

    The methods that change it leave it as it was when they raise.
    """

    #: What is computed from the document, to be forgotten when it changes.
    _derived: ClassVar[tuple[str, ...]] = (
        "_analysis",
        "_values",
        "_kept_state",
        "_calculated",
        "_places",
        "_keys",
    )

    def __init__(self, angle_unit: str = "radians") -> None:
        """Begin an empty study in ``radians`` or ``degrees``."""
        self._document = Document(AngleUnit(angle_unit))
        self._before: Analysis | None = None

    # What is kept

    def to_dict(self) -> dict[str, Any]:
        """Return the study in the open study format."""
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
        """Return a study of its own with the same lines."""
        other = type(self)()
        other._document = self._document
        other._before = self.__dict__.get("_analysis", self._before)
        # What is known of this one holds for the other too, until that is changed.
        known = (name for name in self._derived if hasattr(type(self), name))
        other.__dict__.update({name: getattr(self, name) for name in known})
        return other

    def _change(self, document: Document) -> None:
        self._document = document
        self._before = self.__dict__.get("_analysis", self._before)
        for name in self._derived:
            self.__dict__.pop(name, None)

    def _change_lines(self, lines: Sequence[StudyLine]) -> None:
        if len(lines) > LINES.value:
            raise LimitError(f"A study can have {LINES.value} lines.")
        self._change(replace(self._document, lines=settled(tuple(lines), before=self.lines)))

    def _replace_line(self, place: int, line: StudyLine) -> None:
        """Put a line in the place of one, without a look at the others."""
        old, lines = self.lines[place], list(self.lines)
        lines[place] = line
        line = lines[place] = settle_line(lines, place)
        kept: dict[str, object] = {
            "_places": self._places,
            "_keys": self._keys.with_key(place, line.key),
        }
        if not old.key.is_slider and not line.key.is_slider:
            kept["_values"] = self._values
        self._change(replace(self._document, lines=tuple(lines)))
        self.__dict__.update(kept)

    @property
    def unit(self) -> AngleUnit:
        """Return the unit of angles."""
        return self._document.unit

    @property
    def lines(self) -> tuple[StudyLine, ...]:
        """Return all lines as they are kept."""
        return self._document.lines

    @property
    def asks(self) -> tuple[Ask, ...]:
        """Return the searches that are kept with the study."""
        return self._document.asks

    @property
    def table(self) -> TableSpec:
        """Return the start, stop and step of the table of values."""
        return self._document.table

    @property
    def check(self) -> Check | None:
        """Return the sampling check that is shown."""
        return self._document.check

    def set_check(self, check: Check | None) -> None:
        """Show another sampling check, or none."""
        self._change(replace(self._document, check=check))

    @property
    def axes(self) -> AxesSpec:
        """Return how the axes and the grid look."""
        return self._document.axes

    def set_axes(self, axes: AxesSpec) -> None:
        """Keep other axes."""
        self._change(replace(self._document, axes=axes))

    @property
    def working(self) -> tuple[Work, ...]:
        """Return the lines of the scratch calculator."""
        return self._document.working

    def set_working(self, working: Sequence[Work]) -> None:
        """Keep other lines of the scratch calculator."""
        if len(working) > LINES.value:
            raise LimitError(f"The working of a study can have {LINES.value} lines.")
        self._change(replace(self._document, working=tuple(working)))

    def set_unit(self, angle_unit: str) -> None:
        """Measure angles in ``radians`` or ``degrees``."""
        self._change(replace(self._document, unit=AngleUnit(angle_unit)))

    @property
    def digits(self) -> int:
        """Return with how many digits findings are shown."""
        return self._document.digits

    def set_digits(self, digits: int) -> None:
        """Show findings with so many digits.

        Raises:
            LimitError: they are too few or too many.
        """
        if not 2 <= digits <= STUDY_DIGITS.value:
            raise LimitError(f"A study shows 2 to {STUDY_DIGITS.value} digits.")
        self._change(replace(self._document, digits=digits))

    def set_table(self, table: TableSpec) -> None:
        """Keep the start, stop and step of the table of values."""
        self._change(replace(self._document, table=table))

    @property
    def columns(self) -> tuple[Column, ...]:
        """Return the columns of data, in their order."""
        return self._document.columns

    @property
    def fits(self) -> tuple[FitAsk, ...]:
        """Return the fits that are kept, the newest first."""
        return self._document.fits

    def set_fits(self, fits: Sequence[FitAsk]) -> None:
        """Keep other fits."""
        self._change(replace(self._document, fits=tuple(fits)))

    @property
    def plots(self) -> tuple[Plot, ...]:
        """Return which columns are drawn as points."""
        return self._document.plots

    def set_plots(self, plots: Sequence[Plot]) -> None:
        """Draw other columns."""
        self._change(replace(self._document, plots=tuple(plots)))

    @property
    def row_filter(self) -> str:
        """Return the conditions that rows of data must hold to; empty for all rows."""
        return self._document.row_filter

    def set_row_filter(self, text: str) -> None:
        """Keep other conditions."""
        self._change(replace(self._document, row_filter=text))

    def set_columns(self, columns: Sequence[Column]) -> None:
        """Keep other columns of data."""
        self._change(replace(self._document, columns=tuple(columns)))

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
        name = name_in_head(text)
        other = next((line for line in self.lines if _line_name(line) == name), None)
        before = self._document
        line_id = other.id if name is not None and other is not None else self._next_id()
        self.write(line_id, text)
        made = self.definition(line_id)
        if made.problem is not None and not may_come(made.problem):
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
        index = self._places.get(line_id)
        if index is not None:
            line = self.lines[index]
            # A line that is written by hand no longer follows a fit; one that is renamed does.
            follows = line.fit if line.text.partition("=")[2] == text.partition("=")[2] else None
            # One that was turned off because it could not be computed gets another chance.
            aside = line.aside and not line.halted
            changed = replace(line, text=text, fit=follows, aside=aside, halted=False)
            self._replace_line(index, changed)
            return
        place = len(self.lines) if after not in self._places else self._places[after] + 1
        self._change_lines([*self.lines[:place], StudyLine(line_id, text), *self.lines[place:]])

    def remove(self, name: str) -> list[str]:
        """Delete the line that defines a name; give the names of the lines that needed it.

        Raises:
            UnknownNameError: there is none.
        """
        return self.remove_line(self._line_of(name).id)

    def users(self, name: str) -> list[str]:
        """Return the names of the lines that need a name, in the order of the lines."""
        return self._analysis.users(name)

    def move_line(self, line_id: int, after: int | None) -> None:
        """Put a line behind another one, or at the top.

        Raises:
            KeyError: one of them is not there.
        """
        moved = self.line(line_id)
        rest = [line for line in self.lines if line is not moved]
        place = 0 if after is None else rest.index(self.line(after)) + 1
        self._change(replace(self._document, lines=(*rest[:place], moved, *rest[place:])))

    def remove_line(self, line_id: int) -> list[str]:
        """Delete a line, and the searches that were about it; give the names that needed it."""
        name = self.definition(line_id).name if line_id in self._places else None
        needed_by = self.users(name) if name is not None else []
        lines = tuple(line for line in self.lines if line.id != line_id)
        asks = tuple(ask for ask in self.asks if line_id not in (ask.line, ask.other))
        self._change(replace(self._document, lines=lines, asks=asks))
        return needed_by

    def rename(self, name: str, new: str) -> None:
        """Rename a definition, in its own line and in all that use it.

        Raises:
            MathError: there is no such name, or the new one cannot be given to a line.
        """
        line_id = self._line_of(name).id
        name, new = spelled(name), spelled(new)
        check_new_name(new, frozenset(self.names()) - {name})
        before = self._document
        meanings = zip(self.lines, self._analysis.meanings, strict=True)
        lines = [self._renamed(line, meaning, name, new) for line, meaning in meanings]
        self._rename_beside_lines(name, new)
        self._change_lines(
            [
                replace(line, given=None, text=with_head(line.text, new))
                if line.id == line_id and name_in_head(line.text) is None
                else line
                for line in lines
            ]
        )
        if self.definition(line_id).name != new:
            self._change(before)
            raise NameTakenError(f"`{new}` cannot be the name of this line.")

    def _renamed(self, line: StudyLine, meaning: Meaning, name: str, new: str) -> StudyLine:
        text, slider = renamed(line.text, meaning, name, new), line.slider
        if slider is not None:
            names = self._analysis.names()
            low, high, step = (renamed_number(each, names, name, new) for each in slider.texts)
            slider = slider.with_texts(low, high, step)
        return replace(line, text=text, slider=slider)

    def _rename_beside_lines(self, name: str, new: str) -> None:
        """Let the table, the questions of the Findings panel and the working follow a new name."""
        names = self._analysis.names()
        self.set_table(renamed_table(self.table, names, name, new))
        asks = tuple(renamed_ask(ask, names, name, new) for ask in self.asks)
        self._change(replace(self._document, asks=asks))
        self.set_working(
            [replace(w, text=renamed_relation(w.text, names, name, new)) for w in self.working]
        )

    def write_renaming(self, line_id: int, text: str) -> list[str]:
        """Write a line anew; if its name changes, the lines that used the old one follow.

        Returns:
            The names of the lines that were changed with it.
        """
        old = self.definition(line_id).name
        new = name_in_head(text)
        self.write(line_id, text)
        if old is None or new is None or old == new or old in self.names():
            return []
        if self.definition(line_id).problem is not None and new not in self.names():
            return []
        users = self.users(old)
        self._rename_beside_lines(old, new)
        meanings = zip(self.lines, self._analysis.meanings, strict=True)
        self._change_lines(
            [
                line if line.id == line_id else self._renamed(line, meaning, old, new)
                for line, meaning in meanings
            ]
        )
        return users

    def mark_line(
        self, line_id: int, *, hidden: bool | None = None, aside: bool | None = None
    ) -> None:
        """Hide a line or show it; set it aside or take it back."""
        line = self.line(line_id)
        chosen = replace(
            line,
            hidden=line.hidden if hidden is None else hidden,
            aside=line.aside if aside is None else aside,
            halted=line.halted and aside is None,
        )
        self._change_lines([chosen if each is line else each for each in self.lines])

    def put_runner(self, line_id: int, runner: Runner | None) -> None:
        """Put the runner of a path to another place."""
        self._with_line(line_id, runner=runner)

    def put_family(self, line_id: int, family: Family | None) -> None:
        """Draw a line for several values of a slider at once, or for the present one only."""
        self._with_line(line_id, family=family)

    def put_trail(self, line_id: int, trail: Trail | None) -> None:
        """Let a point leave a trail, with the positions it has, or none."""
        self._with_line(line_id, trail=trail)

    def _with_line(self, line_id: int, **changes: object) -> None:
        chosen = replace(self.line(line_id), **changes)  # type: ignore[arg-type]
        lines = tuple(chosen if each.id == line_id else each for each in self.lines)
        self._change(replace(self._document, lines=lines))

    def restyle(self, line_id: int, style: LineStyle, tone: int | None) -> None:
        """Draw a line in another way."""
        line = self.line(line_id)
        chosen = replace(line, style=style, tone=line.tone if tone is None else tone)
        self._change_lines([chosen if each is line else each for each in self.lines])

    def names(self) -> list[str]:
        """Return the names that are defined, in the order of the lines."""
        return list(self._analysis.written_names)

    def definition(self, line_id: int) -> Definition:
        """Return a line with its meaning.

        Raises:
            KeyError: there is no such line.
        """
        place = self._places[line_id]
        return self._definition(self.lines[place], self._analysis.meanings[place])

    def definitions(self) -> list[Definition]:
        """Return all lines with their meanings."""
        return [
            self._definition(line, meaning)
            for line, meaning in zip(self.lines, self._analysis.meanings, strict=True)
        ]

    def _definition(self, line: StudyLine, meaning: Meaning) -> Definition:
        mathml, read = meaning.mathml, meaning.line
        slider = line.moving
        if slider is not None and meaning.kind is Kind.PARAMETER:
            read = _slider_line(*slider)
            mathml = typeset_line(read, slider[0])
        is_typed = slider is None and _is_typed_value(line, meaning)
        variable = meaning.line.variable if isinstance(meaning.line, FunctionLine) else None
        return Definition(
            line.id, meaning.name, meaning.kind, line.text, mathml, meaning.domain_mathml,
            variable, _problem(line, meaning), line.hidden, line.aside, line.tone,
            line.slider if slider is not None or is_typed else None,
            slider[1] if slider is not None else None, meaning.uses, line.style, read,
            line.fixed, is_typed, line.runner, line.trail, line.family,
        )  # fmt: skip

    def _next_id(self) -> int:
        return max((line.id for line in self.lines), default=0) + 1

    def next_id(self) -> int:
        """Return the number that the next new line would have."""
        return self._next_id()

    def line(self, line_id: int) -> StudyLine:
        """Return a line as it is kept.

        Raises:
            KeyError: there is no such line.
        """
        return self.lines[self._places[line_id]]

    def function_line(self, line_id: int) -> FunctionLine:
        """Return the line of a function as it was read.

        Raises:
            KeyError: there is no such line; DomainError: it is no function that can be read.
        """
        read = self._analysis.meanings[self._places[line_id]].line
        if not isinstance(read, FunctionLine):
            raise DomainError("Only a function has a domain.")
        if len(read.variables) > 1:
            raise DomainError("Only the domain of one variable can be dragged.")
        return read

    def _line_of(self, name: str) -> StudyLine:
        name = spelled(name)
        for line, meaning in zip(self.lines, self._analysis.meanings, strict=True):
            if meaning.name == name and not line.aside:
                return line
        near = nearest(name, frozenset(self.names()))
        hint = f" Did you mean `{near}`?" if near else ""
        raise UnknownNameError(f"`{name}` is not defined.{hint}", suggestion=near)

    @kept_property
    def _values(self) -> dict[str, Fraction]:
        found = (line.moving for line in self.lines if not line.aside)
        return dict(pair for pair in found if pair is not None)

    @kept_property
    def _analysis(self) -> Analysis:
        return analyse(self.unit, self._keys, self._before)

    @kept_property
    def _places(self) -> dict[int | None, int]:
        return {line.id: place for place, line in enumerate(self.lines)}

    @kept_property
    def _keys(self) -> LineKeys:
        return LineKeys(line.key for line in self.lines)


def _line_name(line: StudyLine) -> str | None:
    return name_in_head(line.text) or line.given


def _slider_line(name: str, value: Fraction) -> ValueLine:
    """Return the line of a slider without reading its text, which changes with every frame."""
    size = Number(abs(value), written_number(abs(value)))
    return ValueLine(name, size if value >= 0 else Negative(size), (0, 0))


def _problem(line: StudyLine, meaning: Meaning) -> MathError | None:
    """Return what is said of a line in its row; nothing of one that is just turned off."""
    if line.halted:
        return HaltedError(
            "Computing this line used up the time or memory there is, so it was turned off. "
            "Change it, or turn it on to try again."
        )
    return None if line.aside else meaning.problem


def _is_typed_value(line: StudyLine, meaning: Meaning) -> bool:
    """Check whether a line is a slider whose value is an expression without names of the study."""
    is_number = meaning.kind is Kind.PARAMETER and meaning.problem is None and not meaning.uses
    return is_number and line.slider is not None and not line.fixed
