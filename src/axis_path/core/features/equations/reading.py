"""Read a set of equations: which names in it are unknowns, and which letters are units."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from axis_path.core.catalogue import CONSTANTS
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.units import MeasuredEquations
from axis_path.core.errors import EquationError, LimitError, UnitError
from axis_path.core.features.equations.letters import (
    defined_by,
    is_given,
    letters_of_both,
    numbers_of,
)
from axis_path.core.language import NAME_PATTERN, WORDS, Vocabulary, spelled
from axis_path.core.language.parsing.body import Condition as Compared
from axis_path.core.language.read import read_body
from axis_path.core.language.tree import Name, free_uses
from axis_path.core.limits import SET_EQUATIONS

_NOTE = "#"


@dataclass(frozen=True, slots=True)
class ReadEquation:
    """One equation of a set.

    Attributes:
        text: as it was typed.
        compared: its two sides.
        meant: the names of the set that stand there, and not the units of their letters.
    """

    text: str
    compared: Compared
    meant: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class ReadSet:
    """A set of equations.

    Attributes:
        equations: in the order of typing.
        unknowns: the names without a value, in the order in which they first stand there.
        known: the names of the study that take part.
        measured: the equations in base units, with what the unknowns measure.
    """

    equations: tuple[ReadEquation, ...]
    unknowns: tuple[str, ...]
    known: tuple[str, ...]
    measured: MeasuredEquations


def read_set(
    snapshot: Snapshot, texts: Sequence[str], unknowns: Sequence[str] | None = None
) -> ReadSet:  # fmt: skip
    """Read equations among the names of a study.

    Args:
        snapshot: of the study.
        texts: one equation each; an empty one and a note are left out.
        unknowns: what is sought; all names without a value if they are not given.

    Raises:
        MathError: one does not read, or its units do not fit.
    """
    listed = [text for text in texts if text.strip() and not text.lstrip().startswith(_NOTE)]
    if not listed:
        raise EquationError("Write an equation first, as in `W = m g_n`.")
    if len(listed) > SET_EQUATIONS.value:
        raise LimitError(f"A set can have {SET_EQUATIONS.value} equations.")
    given = None if unknowns is None else tuple(map(spelled, unknowns))
    names = snapshot.analysis.names()
    if given is not None:
        names = names.and_variables(*given)
    return _Reader(snapshot, names.and_letters(candidates_in(listed, names)), given).read(listed)


class _Reader:
    """Decides which letters behind numbers are units, and which are names of the set."""

    def __init__(
        self, snapshot: Snapshot, vocabulary: Vocabulary, given: tuple[str, ...] | None
    ) -> None:
        self._snapshot = snapshot
        self._vocabulary = vocabulary
        self._given = given

    def read(self, texts: Sequence[str]) -> ReadSet:
        """Read equations; see ``letters.py`` for what is preferred."""
        with_units = [ReadEquation(text, _body(text, self._vocabulary)) for text in texts]
        own = {name for one in with_units for name in names_of_values(one.compared)}
        defined = frozenset[str]().union(*(defined_by(one.compared) for one in with_units))
        both = [letters_of_both(one.compared, defined) for one in with_units]
        with_names = [self._named(one, names) for one, names in zip(with_units, both, strict=True)]
        all_names = [self._named(one, letters_of_both(one.compared, own)) for one in with_units]
        numbers = frozenset[str]().union(*(numbers_of(one.compared) for one in with_units))
        mixed = [
            unit if is_given(unit.compared) and not numbers.issuperset(names) else name
            for unit, name, names in zip(with_units, with_names, both, strict=True)
        ]
        return self._first_that_fits(mixed, with_units, all_names)

    def _first_that_fits(self, *readings: list[ReadEquation]) -> ReadSet:
        """Return the first reading in which the units fit.

        Raises:
            UnitError: none does; of the second reading, which has units behind all numbers.
        """
        errors = []
        for reading in readings:
            try:
                return self._measured(reading)
            except UnitError as err:
                errors.append(err)
        raise errors[1]

    def _named(self, equation: ReadEquation, names: tuple[str, ...]) -> ReadEquation:
        """Return an equation in which some letters behind numbers are names."""
        if not names:
            return equation
        vocabulary = self._vocabulary
        vocabulary = replace(vocabulary, letters=vocabulary.letters.difference(names))
        compared = _body(equation.text, vocabulary.and_variables(*names))
        return ReadEquation(equation.text, compared, names)

    def _measured(self, equations: Sequence[ReadEquation]) -> ReadSet:
        return _measured(self._snapshot, equations, self._given)


def names_of_values(compared: Compared) -> set[str]:
    """Return the names of values in an equation, not those of functions."""
    used = (free_uses(term) for term in compared.terms)
    return {use.name for uses in used for use in uses if isinstance(use, Name)}


def _measured(
    snapshot: Snapshot, equations: Sequence[ReadEquation], given: tuple[str, ...] | None
) -> ReadSet:
    """Return equations with their unknowns, checked for units."""
    names, used = snapshot.analysis.names(), list[str]()
    for one in equations:
        used += _in_order(one)
    ordered = list(dict.fromkeys(used))
    known = names.values | names.functions
    free = [name for name in ordered if name not in known or (given and name in given)]
    if given is not None:
        free = list(given)
        missing = [n for n in ordered if n not in known and n not in free]
        if missing:
            listed = ", ".join(f"`{name}`" for name in missing)
            raise EquationError(f"These have no value: {listed}. Make them unknowns too.")
    elif not free:
        raise EquationError("There is no unknown in these equations: every name has a value.")
    measured = snapshot.analysis.measured_equations(
        [(one.text, one.compared.terms) for one in equations], free
    )
    others = tuple(name for name in ordered if name not in free)
    return ReadSet(tuple(equations), tuple(free), others, measured)


def _body(text: str, vocabulary: Vocabulary) -> Compared:
    compared = read_body(text, vocabulary).compared
    if compared is None or compared.signs != ("=",):
        raise EquationError(
            f"`{text.strip()}` is no equation. A set is made of equations, with one `=` in each."
        )
    return compared


def _in_order(equation: ReadEquation) -> list[str]:
    """Return the names of an equation in the order of its text."""
    used = {name for name in names_of_values(equation.compared) if name not in CONSTANTS}
    runs = [spelled(match) for match in NAME_PATTERN.findall(equation.text)]
    return [name for name in runs if name in used] + sorted(used.difference(runs))


def candidates_in(texts: Sequence[str], names: Vocabulary) -> frozenset[str]:
    """Return the runs of letters that may be names of unknowns.

    A run of letters that all stand alone elsewhere is their product.
    """
    runs = {spelled(run) for text in texts for run in NAME_PATTERN.findall(text)}
    unknown = {run for run in runs if not names.is_known(run) and run not in WORDS}
    alone = {run for run in unknown | names.values if len(run) == 1}
    return frozenset(
        run
        for run in unknown
        if len(run) == 1 or not run.isascii() or not run.isalpha() or not set(run) <= alone
    )
