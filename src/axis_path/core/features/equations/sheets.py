"""What is shown of a set of equations that is a line: its solutions, and what determines them."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.compile.results import Results
from axis_path.core.compile.sets.definitions import SettledSet
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import DomainError, MathError
from axis_path.core.features.equations.meanings import LetterMeaning, meanings_of
from axis_path.core.features.equations.solving import SolvedSet, with_results
from axis_path.core.features.equations.words import ONE_SOLUTION, set_note, set_verdict


@dataclass(frozen=True, slots=True)
class SetSummary:
    """A set of equations in short.

    Attributes:
        known: the names of other lines in it.
        unknown: the names that it gives their values.
        verdict: how many solutions there are, and whether that is proved; or why it is not solved.
        is_sure: whether it is proved that there are no others.
        note: what is missing, redundant, contradictory or not certain, in sentences.
        count: of the solutions.
        chosen: the one that is used, from 0.
        values: the unknowns in it: the name and the value with its unit.
        meanings: which letters are names, and which are units, where both could be.
    """

    known: tuple[str, ...]
    unknown: tuple[str, ...]
    verdict: str
    is_sure: bool
    note: str = ""
    count: int = 0
    chosen: int = 0
    values: tuple[tuple[str, str], ...] = ()
    meanings: tuple[LetterMeaning, ...] = ()


class SetLines:
    """The sets of equations among the lines of a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._solved: dict[int, SolvedSet] = {}

    def solved(self, line_id: int) -> SolvedSet:
        """Return the set of a line with its solutions.

        Raises:
            KeyError: there is no such line. MathError: it is no set, or cannot be solved.
        """
        index = self._snapshot.index_of(line_id)
        settled = self._snapshot.analysis.sets.get(index)
        if settled is None:
            raise DomainError("This line is no set of equations that works.")
        if line_id not in self._solved:
            solved = self._snapshot.solved_sets.solved(index)
            units = self._snapshot.query(Results).units_of_set(index)
            self._solved[line_id] = with_results(self._snapshot, settled.read, solved, units)
        return self._solved[line_id]

    def chosen(self, line_id: int) -> int:
        """Return which solution of a set is used, from 0."""
        return self._snapshot.solved_sets.chosen(self._snapshot.index_of(line_id))

    def _stated(self, settled: SettledSet, digits: int) -> SetSummary | None:
        """Return a set in short whose unknowns are all expressions of one another; else None.

        Then there is exactly one solution, if all of them have a value: nothing is to be solved, as
        in every frame of a drag.
        """
        read, structure = settled.read, settled.structure
        is_stated = not (settled.solved or structure.extra or structure.free)
        if not is_stated or len(settled.names) < len(read.unknowns):
            return None
        results, values = self._snapshot.query(Results), []
        for name in read.unknowns:
            try:
                result = results.of_set(name)
            except MathError:
                return None
            if result.reason:
                return None
            values.append((name, result.decimal(digits)))
        return SetSummary(
            read.known, read.unknowns, ONE_SOLUTION, is_sure=True, count=1,
            values=tuple(values), meanings=tuple(meanings_of(read)),
        )  # fmt: skip

    def summary(self, line_id: int, digits: int) -> SetSummary | None:
        """Return a set in short; None for a line that is none, or that does not work.

        Args:
            line_id: of the line.
            digits: of the values.
        """
        settled = self._snapshot.analysis.sets.get(self._snapshot.index_of(line_id))
        if settled is None:
            return None
        read = settled.read
        quick = self._stated(settled, digits)
        if quick is not None:
            return quick
        try:
            solved = self.solved(line_id)
        except MathError as err:
            return SetSummary(
                read.known, read.unknowns, err.message, is_sure=False,
                meanings=tuple(meanings_of(read)),
            )  # fmt: skip
        chosen, solutions = self.chosen(line_id), solved.solutions
        values = solved.values[chosen] if chosen < len(solved.values) else {}
        return SetSummary(
            read.known, read.unknowns, set_verdict(solutions),
            solutions.complete and not solutions.is_free,
            set_note(read, solutions, solved.box, with_letters=False),
            len(solved.values), chosen,
            tuple(
                (name, values[name].decimal(digits)) for name in read.unknowns if name in values
            ),
            tuple(meanings_of(read)),
        )  # fmt: skip
