"""Read the equations of a set: which letters are its names, and which are units.

A reading is preferred by ``letters.py``; where its units do not fit, the next one is tried.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from axis_path.core.catalogue import CONSTANTS
from axis_path.core.catalogue.units import find_unit
from axis_path.core.errors import EquationError
from axis_path.core.language import messages
from axis_path.core.language.line_types import SetEquation
from axis_path.core.language.parsing.body import Condition
from axis_path.core.language.read import read_body
from axis_path.core.language.sets.letters import (
    defined_by,
    is_given,
    letters_of_both,
    numbers_of,
)
from axis_path.core.language.sets.split import EquationText
from axis_path.core.language.tree import Name
from axis_path.core.language.vocabulary import NAME_PATTERN, WORDS, Vocabulary, spelled
from axis_path.core.language.walk import free_uses

Reading = tuple[SetEquation, ...]


@dataclass(frozen=True, slots=True)
class Readings:
    """The ways in which the equations of a set can be read.

    Attributes:
        mixed: given quantities have units, elsewhere the names of the set win.
        with_units: letters behind numbers are units.
        with_names: they are names, as far as the set has such names.
    """

    mixed: Reading
    with_units: Reading
    with_names: Reading

    @property
    def names(self) -> tuple[str, ...]:
        """Return all names of values that stand in the equations, in the order of their text."""
        return tuple(dict.fromkeys(name for one in self.with_units for name in names_of(one)))

    def in_order(self) -> tuple[Reading, ...]:
        """Return the readings, the preferred one first."""
        return tuple(dict.fromkeys((self.mixed, self.with_units, self.with_names)))


def read_equations(texts: Sequence[EquationText], vocabulary: Vocabulary) -> Readings:
    """Read the equations of a set.

    Args:
        texts: where each stands.
        vocabulary: the names of the study.

    Raises:
        MathError: one does not read.
    """
    weak = frozenset(name for name in vocabulary.values if find_unit(name) is not None)
    vocabulary = replace(vocabulary, values=vocabulary.values - weak)
    vocabulary = vocabulary.and_letters(
        weak | _candidates([one.text for one in texts], vocabulary.and_letters(weak))
    )
    with_units = tuple(_read(text, vocabulary, ()) for text in texts)
    own = weak.union(name for one in with_units for name in names_of_values(one.compared))
    defined = weak.union(*(defined_by(one.compared) for one in with_units))
    numbers = frozenset[str]().union(*(numbers_of(one.compared) for one in with_units))
    mixed, with_names = [], []
    for text, one in zip(texts, with_units, strict=True):
        both = letters_of_both(one.compared, defined)
        is_quantity = is_given(one.compared) and not numbers.issuperset(both)
        mixed.append(one if is_quantity or not both else _read(text, vocabulary, both))
        every = letters_of_both(one.compared, own)
        with_names.append(_read(text, vocabulary, every) if every else one)
    return Readings(tuple(mixed), with_units, tuple(with_names))


def names_of_values(compared: Condition) -> set[str]:
    """Return the names of values in an equation, not those of functions."""
    used = (free_uses(term) for term in compared.terms)
    return {use.name for uses in used for use in uses if isinstance(use, Name)}


def names_of(equation: SetEquation) -> list[str]:
    """Return the names of an equation in the order of its text."""
    used = {name for name in names_of_values(equation.compared) if name not in CONSTANTS}
    runs = [spelled(match) for match in NAME_PATTERN.findall(equation.text)]
    return [name for name in runs if name in used] + sorted(used.difference(runs))


def _read(text: EquationText, vocabulary: Vocabulary, meant: tuple[str, ...]) -> SetEquation:
    """Read an equation in which some letters behind numbers are names."""
    if meant:
        vocabulary = replace(vocabulary, letters=vocabulary.letters.difference(meant))
        vocabulary = vocabulary.and_variables(*meant)
    compared = read_body(text.source, vocabulary, start=text.start).compared
    if compared is None or compared.signs != ("=",):
        raise EquationError(
            messages.TEXT_NOT_EQUATION_EACH(text=text.text),
            position=(text.start, len(text.source)),
        )
    return SetEquation(text.text, text.source, compared, meant)


def _candidates(texts: Iterable[str], names: Vocabulary) -> frozenset[str]:
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
