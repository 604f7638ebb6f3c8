"""Compile the lines that work, each after those that it uses."""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.compile.analysis import Analysis
from axis_path.core.compile.sets.definitions import settled_set
from axis_path.core.compile.sets.read_set import first_that_fits
from axis_path.core.compile.units.units import measured_meaning
from axis_path.core.errors import EquationError, LimitError, MathError, UnitError
from axis_path.core.language import RelationLine, SetLine, typeset_line
from axis_path.core.lines.meaning import Kind, Meaning, read_with_units, with_problem


class Settler:
    """Compiles the lines of an analysis, and notes what they turn out to be."""

    def __init__(self, analysis: Analysis) -> None:
        self._analysis = analysis

    def settle(self, order: list[int], meanings: list[Meaning]) -> None:
        """Compile the lines that work, each after those that it uses."""
        failed: dict[str, MathError] = {}
        for index in order:
            text, meaning = self._analysis.keys[index].text, meanings[index]
            name = meaning.name
            if isinstance(meaning.line, SetLine):
                meanings[index] = self._settled_set(index, text, meaning, meaning.line)
                continue
            if name is None:
                meanings[index] = self._settled_relation(text, meaning)
                continue
            limit = next((failed[used] for used in meaning.uses if used in failed), None)
            if limit is not None:
                meanings[index] = with_problem(meaning, failed.setdefault(name, limit))
                continue
            mark = self._marked(text, meaning)
            if self._analysis.named_units is not None:
                meaning = self._measured(mark, text, meaning)
                if isinstance(meaning.problem, UnitError):
                    meaning, mark = self._with_units(index, meaning, mark)
                if meaning.problem is not None:
                    meanings[index] = meaning
                    continue
            self._analysis.named[name] = meaning
            self._analysis.marks[name] = mark
            line = self._analysis.cache.compiled.get(mark)
            if line is None and meaning.uses - self._analysis.named.keys():
                # What it needs could not be compiled: ``spread_problems`` says so.
                continue
            if line is None:
                line = self._analysis.cache.compiled[mark] = (
                    self._analysis.expressions.compile_line(meaning)
                )
            if isinstance(line, MathError):
                meanings[index] = with_problem(meaning, line)
                del self._analysis.named[name]
                if isinstance(line, LimitError):
                    failed[name] = line
            else:
                meanings[index] = self._analysis.named[name] = replace(meaning, kind=line[0])
        self._analysis.meanings = tuple(meanings)

    def _marked(self, text: str, meaning: Meaning) -> int:
        uses = tuple(sorted((name, self._analysis.marks.get(name, -1)) for name in meaning.uses))
        is_measured = self._analysis.named_units is not None
        content = (text, meaning.name, meaning.is_slider, meaning.line, uses, is_measured)
        marks = self._analysis.cache.marks
        return marks.setdefault(content, len(marks))

    def _measured(self, mark: int, text: str, meaning: Meaning) -> Meaning:
        """Infer the units of a line; what was inferred for the same meaning is stored.

        Units that do not fit together are a problem of the line.
        """
        if self._analysis.named_units is None or meaning.line is None:
            return meaning
        measured = self._analysis.cache.measured.get(mark)
        if measured is None:
            try:
                measured = measured_meaning(
                    text, meaning, self._analysis.named_units, self._analysis.unit
                )
            except UnitError as err:
                measured = err.with_traceback(None)
            self._analysis.cache.measured[mark] = measured
        if isinstance(measured, UnitError):
            return with_problem(meaning, measured)
        if meaning.name is not None:
            self._analysis.named_units.with_line(meaning.name, measured.line, measured.units)
        return replace(meaning, units=measured.units, computed=measured.line)

    def _with_units(self, index: int, meaning: Meaning, mark: int) -> tuple[Meaning, int]:
        """Return a line with letters as units that names hide, if only that fits together."""
        key = self._analysis.keys[index]
        other = read_with_units(key, self._analysis.vocabulary)
        if other is None:
            return meaning, mark
        other_mark = self._marked(key.text, other)
        other = self._measured(other_mark, key.text, other)
        return (meaning, mark) if other.problem is not None else (other, other_mark)

    def _settled_set(self, index: int, text: str, meaning: Meaning, line: SetLine) -> Meaning:
        """Put the names of a set of equations in their places."""
        analysis = self._analysis
        for name in meaning.defines:
            analysis.named.pop(name, None)
            analysis.solved_names.pop(name, None)
        analysis.sets.pop(index, None)
        mark = self._marked(text, meaning)
        settled = analysis.cache.sets.get(mark)
        if settled is None:
            try:
                is_measured = analysis.named_units is not None
                read = first_that_fits(analysis, line.readings)
                settled = settled_set(read, analysis.unit, is_measured=is_measured)
            except MathError as err:
                settled = err.with_traceback(None)
            analysis.cache.sets[mark] = settled
        if isinstance(settled, MathError):
            return with_problem(meaning, settled)
        for name, own in settled.names.items():
            if analysis.named_units is not None and own.units is not None:
                analysis.named_units.values[name] = own.units.value
            analysis.named[name] = own
            analysis.marks[name] = self._marked(text, replace(own, uses=meaning.uses))
        for name, own in settled.names.items():
            mark = analysis.marks[name]
            if mark not in analysis.cache.compiled:
                analysis.cache.compiled[mark] = analysis.expressions.compile_line(own)
            compiled = analysis.cache.compiled[mark]
            if isinstance(compiled, MathError):
                return with_problem(meaning, compiled)
            if compiled[0] is not Kind.PARAMETER:
                return with_problem(meaning, EquationError(f"`{name}` is no number."))
        analysis.sets[index] = settled
        analysis.solved_names.update(dict.fromkeys(settled.solved, index))
        if settled.read.equations != line.equations:
            line = replace(line, readings=(settled.read.equations,))
            meaning = replace(meaning, line=line, mathml=typeset_line(line, line.name))
        missing = settled.undetermined.union(meaning.defines).difference(settled.names)
        return replace(meaning, undetermined=frozenset(missing))

    def _settled_relation(self, text: str, meaning: Meaning) -> Meaning:
        if not isinstance(meaning.line, RelationLine):
            return meaning
        if self._analysis.named_units is not None:
            meaning = self._measured(self._marked(text, meaning), text, meaning)
        if meaning.problem is not None or not isinstance(meaning.base_line, RelationLine):
            return meaning
        try:
            self._analysis.expressions.relation(meaning.base_line)
        except MathError as err:
            return with_problem(meaning, err.with_traceback(None))
        return meaning
