"""Everything that follows from a document in one position of its sliders.

A snapshot never changes. What is asked of it is computed once and kept; the snapshot after an edit
re-uses what the edit did not touch.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from fractions import Fraction
from typing import Protocol, TypeVar, cast

from axis_path.core.arithmetic.real_number import Parameters, RealNumber
from axis_path.core.catalogue.units import NO_UNIT, UnitProduct, read_unit
from axis_path.core.compile.analyse import analyse
from axis_path.core.compile.analysis import Analysis
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.evaluator import Evaluator
from axis_path.core.compile.made_definition import made_definition
from axis_path.core.compile.objects.objects import Objects
from axis_path.core.compile.sets.solved_sets import SolvedSets
from axis_path.core.compile.values import Values
from axis_path.core.document.document import Document
from axis_path.core.document.random_seed import RandomSeed
from axis_path.core.errors import (
    DomainError,
    LimitError,
    UnknownNameError,
)
from axis_path.core.language import (
    FunctionLine,
    Line,
    NoteLine,
    nearest,
    note_parts,
    spelled,
)
from axis_path.core.language.tree import AngleUnit
from axis_path.core.limits import LINES
from axis_path.core.lines.line import StudyLine
from axis_path.core.lines.meaning import (
    LineKeys,
    Meaning,
    name_in_head,
    sliders_with_units,
)
from axis_path.core.lines.naming import settle_line, settled
from axis_path.core.lines.sliders import exact_number, slider_unit, written_slider
from axis_path.core.threads import lazy_property


class Query(Protocol):
    """What answers questions about a snapshot."""

    def __init__(self, snapshot: Snapshot) -> None:
        """Answer questions about this snapshot."""


Q = TypeVar("Q", bound=Query)
S = TypeVar("S")


class Snapshot:
    """A document with what its lines mean, and the values of its sliders.

    Args:
        document: all that is stored of the study.
        before: the analysis before the last edit, from which the new one is begun.
    """

    def __init__(self, document: Document, before: Analysis | None = None) -> None:
        self.document = document
        self._before = before
        self._queries: dict[type[Query], Query] = {}

    def query(self, kind: type[Q]) -> Q:
        """Return what answers questions of one kind; it is stored with the snapshot."""
        cached = self._queries.get(kind)
        if cached is None:
            cached = self._queries.setdefault(kind, kind(self))
        return cast("Q", cached)

    # Other snapshots

    def after(self, document: Document) -> Snapshot:
        """Return the snapshot of an edited document."""
        is_same = document.lines is self.document.lines and document.unit is self.document.unit
        if not is_same:
            return Snapshot(document, self._known_analysis())
        other = Snapshot(document, self._before)
        self._share(other, "analysis", "sliders", "_places", "_keys")
        if document.section(RandomSeed) == self.section(RandomSeed):
            self._share(other, "values")
        return other

    def section(self, kind: type[S]) -> S:
        """Return what a feature keeps in the document."""
        return self.document.section(kind)

    def with_section(self, section: object) -> Snapshot:
        """Return the snapshot with another section of one feature."""
        return self.after(self.document.with_section(section))

    def with_lines(self, lines: Sequence[StudyLine]) -> Snapshot:
        """Return the snapshot with other lines, which get the names and colours they lack.

        Raises:
            LimitError: they are too many.
        """
        if len(lines) > LINES.value:
            raise LimitError(f"A study can have {LINES.value} lines.")
        named = settled(tuple(lines), before=self.lines)
        return self.after(replace(self.document, lines=named))

    def with_line(self, line: StudyLine) -> Snapshot:
        """Return the snapshot with a line in the place of the one with its id.

        Raises:
            KeyError: there is no such line.
        """
        index = self._indices[line.id]
        old, lines = self.lines[index], list(self.lines)
        lines[index] = line
        line = lines[index] = settle_line(lines, index)
        other = self.after(replace(self.document, lines=tuple(lines)))
        self._share(other, "_places")
        if not any(key.unit for key in (*self._keys, line.key)):
            other._keys = self._keys.with_key(index, line.key)
        if not old.key.is_slider and not line.key.is_slider:
            self._share(other, "sliders")
        return other

    def with_values(self, values: Mapping[str, Fraction]) -> Snapshot:
        """Return the snapshot with some sliders at other values, which its lines do not show."""
        other = self
        for line in self.lines:
            # A value that was typed as an expression is a part of its line.
            name = self.definition(line.id).name if line.moving is None and line.slider else None
            if name is not None and name in values:
                text = written_slider(name, values[name], "")
                other = other.with_line(replace(other.line(line.id), text=text))
        moved = other.after(other.document)
        moved.__dict__.pop("values", None)
        moved.sliders = {**self.sliders, **values}
        return moved

    def with_number(self, name: str, value: RealNumber) -> Snapshot:
        """Return the snapshot with a slider at any number, which need not be a fraction."""
        if isinstance(value, Fraction):
            return self.with_values({name: value})
        moved = self.with_values({name: exact_number(float(value))})
        moved.values = Values({**moved.sliders, name: value}, moved.computed_value)
        return moved

    def sliders_below(self, names: Iterable[str]) -> tuple[tuple[str, Fraction], ...]:
        """Return the values of all sliders that names depend on, directly or by others."""
        known, waiting = set[str](), list(names)
        while waiting:
            name = waiting.pop()
            meaning = self.analysis.meaning(name)
            if name not in known and meaning is not None:
                known.add(name)
                waiting.extend(meaning.uses)
        sliders = self.sliders
        return tuple(sorted((name, sliders[name]) for name in known if name in sliders))

    def _known_analysis(self) -> Analysis | None:
        return self.__dict__.get("analysis", self._before)

    def _share(self, other: Snapshot, *names: str) -> None:
        """Let another snapshot have what was computed for this one already."""
        for name in names:
            if name in self.__dict__:
                setattr(other, name, self.__dict__[name])

    # Lines

    @property
    def lines(self) -> tuple[StudyLine, ...]:
        """Return all lines as they are stored."""
        return self.document.lines

    @property
    def unit(self) -> AngleUnit:
        """Return the unit of angles."""
        return self.document.unit

    def line(self, line_id: int) -> StudyLine:
        """Return a line as it is stored.

        Raises:
            KeyError: there is no such line.
        """
        return self.lines[self._indices[line_id]]

    def has_line(self, line_id: int | None) -> bool:
        """Check whether there is a line with an id."""
        return line_id in self._indices

    def index_of(self, line_id: int) -> int:
        """Return which of the lines a line is, from 0.

        Raises:
            KeyError: there is no such line.
        """
        return self._indices[line_id]

    def next_id(self) -> int:
        """Return the number that the next new line has."""
        return max((line.id for line in self.lines), default=0) + 1

    def names(self) -> list[str]:
        """Return the names that are defined, in the order of the lines."""
        return list(self.analysis.written_names)

    def line_of(self, name: str) -> StudyLine:
        """Return the line that defines a name.

        Raises:
            UnknownNameError: there is none.
        """
        name = spelled(name)
        for line, meaning in zip(self.lines, self.analysis.meanings, strict=True):
            if name in meaning.names and not line.disabled:
                return line
        near = nearest(name, frozenset(self.names()))
        hint = f" Did you mean `{near}`?" if near else ""
        raise UnknownNameError(f"`{name}` is not defined.{hint}", suggestion=near)

    def function_line(self, line_id: int) -> FunctionLine:
        """Return the line of a function as it was read.

        Raises:
            KeyError: there is no such line; DomainError: it is no function that can be read.
        """
        read = self.analysis.meanings[self._indices[line_id]].line
        if not isinstance(read, FunctionLine):
            raise DomainError("Only a function has a domain.")
        if len(read.variables) > 1:
            raise DomainError("Only the domain of one variable can be dragged.")
        return read

    def base_line(self, line_id: int) -> Line | None:
        """Return a line as it is computed: in base units, if units take part.

        Raises:
            KeyError: there is no such line.
        """
        return self.analysis.meanings[self._indices[line_id]].base_line

    def definition(self, line_id: int) -> Definition:
        """Return a line with its meaning.

        Raises:
            KeyError: there is no such line.
        """
        index = self._indices[line_id]
        return self._definition(self.lines[index], self.analysis.meanings[index])

    def definition_of(self, name: str) -> Definition:
        """Return the line that defines a name, with its meaning.

        Raises:
            UnknownNameError: there is none.
        """
        return self.definition(self.line_of(name).id)

    def definitions(self) -> list[Definition]:
        """Return all lines with their meanings."""
        return [
            self._definition(line, meaning)
            for line, meaning in zip(self.lines, self.analysis.meanings, strict=True)
        ]

    # What follows from them

    @lazy_property
    def analysis(self) -> Analysis:
        """Return what the lines mean together."""
        return analyse(self.unit, self._keys, self._before)

    @lazy_property
    def sliders(self) -> dict[str, Fraction]:
        """Return the values of all sliders by their names."""
        pairs = (
            line.moving
            for line, key in zip(self.lines, self._keys, strict=True)
            if key.is_slider and not line.disabled
        )
        return dict(pair for pair in pairs if pair is not None)

    @lazy_property
    def values(self) -> Parameters:
        """Return the sliders, and on demand what is computed from matrices or by solving sets."""
        return Values(self.sliders, self.computed_value)

    def computed_value(self, name: str) -> RealNumber:
        """Compute the value of a name that is no slider and no expression.

        Raises:
            DomainError: it has none.
        """
        if name in self.analysis.solved_names:
            return self.solved_sets.value(name)
        return self.objects.fraction(name)

    def check_solved(self, uses: frozenset[str]) -> None:
        """Refuse what needs the value of an unknown that its equations do not have.

        Raises:
            DomainError: there is none.
        """
        for name in sorted(self.analysis.solved_in(uses)):
            self.values[name]

    @lazy_property
    def solved_sets(self) -> SolvedSets:
        """Return what solves the sets of equations."""
        return SolvedSets(
            self.analysis, self.values, lambda index: self.lines[index].options,
            self.sliders_below, self.section(RandomSeed).number,
        )  # fmt: skip

    @lazy_property
    def objects(self) -> Objects:
        """Return what computes lists and matrices as wholes."""
        return Objects(self.analysis, self.values, self.section(RandomSeed).number)

    @lazy_property
    def evaluator(self) -> Evaluator:
        """Return what computes numbers, points and lists."""
        return Evaluator(self.analysis.lists, self.values, self.analysis)

    @lazy_property
    def _indices(self) -> dict[int | None, int]:
        return {line.id: index for index, line in enumerate(self.lines)}

    def _definition(self, line: StudyLine, meaning: Meaning) -> Definition:
        made = made_definition(line, meaning)
        if not isinstance(meaning.line, NoteLine):
            return made
        return replace(made, note=note_parts(meaning.line.text, self.analysis.names()))

    @lazy_property
    def _keys(self) -> LineKeys:
        return LineKeys(
            sliders_with_units(
                (line.key for line in self.lines), lambda index: self.lines[index].plain_key
            )
        )

    def unit_of_slider(self, name: str) -> UnitProduct:
        """Return the unit of a slider; of a plain number no unit."""
        for line in self.lines:
            moving = self.moving(line)
            if moving is not None and moving[0] == name:
                unit = slider_unit(line.text)
                return (read_unit(unit) if unit else None) or NO_UNIT
        return NO_UNIT

    def moving(self, line: StudyLine) -> tuple[str, Fraction] | None:
        """Return the name and the value of a slider; None for any other line."""
        return line.moving if self._keys[self._indices[line.id]].is_slider else None


def line_name(line: StudyLine) -> str | None:
    """Return the name that a line writes, or was given."""
    return name_in_head(line.text) or line.given
