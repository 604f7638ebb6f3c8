"""What one line means by itself: its kind, its name, and the names that it uses."""

from __future__ import annotations

import operator
import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import lru_cache
from itertools import compress
from typing import Self

from axis_path.core.catalogue import CONSTANTS, FUNCTIONS
from axis_path.core.catalogue.units import find_unit
from axis_path.core.dimensions import LineUnits
from axis_path.core.errors import MathError, UnknownNameError
from axis_path.core.language import (
    INFINITY,
    SUMMARIES,
    FunctionLine,
    Line,
    NoteLine,
    RelationLine,
    SetLine,
    ValueLine,
    Vocabulary,
    head_name,
    is_function_head,
    line_nodes,
    own_variables,
    read_line,
    typeset_domains,
    typeset_line,
)
from axis_path.core.language.sets.split import split_set
from axis_path.core.language.tree import Name, Span
from axis_path.core.language.walk import WITH_UNITS, free_parts, name_of
from axis_path.core.limits import LINE_LENGTH
from axis_path.core.lines.sliders import slider_value

#: The imaginary unit is no letter without a value.
_NEVER_MISSING = frozenset({"i", INFINITY}) | frozenset(CONSTANTS)


class Kind(StrEnum):
    """What a line is."""

    FUNCTION = "function"
    SEVERAL = "several"
    OPERATION = "operation"
    PATH = "path"
    POLAR = "polar"
    RELATION = "relation"
    REGION = "region"
    PARAMETER = "parameter"
    POINT = "point"
    LIST = "list"
    MATRIX = "matrix"
    TRUTH = "truth"
    NOTE = "note"
    EQUATIONS = "equations"
    UNREAD = "unread"


#: Kinds that are used with arguments behind their name.
CALLED = frozenset({Kind.FUNCTION, Kind.SEVERAL, Kind.OPERATION, Kind.PATH, Kind.POLAR})
#: Kinds that have one value.
VALUED = frozenset({Kind.PARAMETER, Kind.POINT, Kind.LIST, Kind.MATRIX, Kind.TRUTH})


@dataclass(frozen=True, slots=True)
class LineKey:
    """What an analysis needs of a line; the text of a slider holds no value here."""

    text: str
    disabled: bool
    given: str | None
    is_slider: bool
    unit: str = ""


#: The letters of the plane.
PLANE_LETTERS = frozenset({"x", "y"})
_SYMBOL = re.compile(r"[^\W\d]+")


def sliders_with_units(
    keys: Iterable[LineKey], plain: Callable[[int], LineKey]
) -> tuple[LineKey, ...]:
    """Return the keys of lines in which no unit of a slider has the name of another line.

    ``m = 2 s`` is no slider where s has a value: it is twice s.

    Args:
        keys: of all lines.
        plain: returns the key of a line as one that is no slider.
    """
    listed = tuple(keys)
    if not any(key.unit for key in listed):
        return listed
    names = names_of(listed)
    own = names.values | names.functions
    return tuple(
        plain(index)
        if own.difference((name_in_head(key.text),)).intersection(_SYMBOL.findall(key.unit))
        else key
        for index, key in enumerate(listed)
    )


class LineKeys(tuple[LineKey, ...]):
    """The keys of all lines; with another key in one place it looks at no other to be hashed."""

    _sum: int
    #: The keys that these were made of, and where one was changed; only the last step is stored.
    _base: tuple[tuple[LineKey, ...], int] | None = None

    def __new__(cls, keys: Iterable[LineKey]) -> Self:
        """Take the keys in the order of the lines."""
        made = super().__new__(cls, keys)
        made._sum = sum(map(hash, enumerate(made)))
        return made

    def with_key(self, index: int, key: LineKey) -> Self:
        """Return the same keys but for one."""
        keys = list(self)
        keys[index] = key
        made = super().__new__(type(self), keys)
        made._sum = self._sum - hash((index, self[index])) + hash((index, key))
        made._base, self._base = (self, index), None
        return made

    def changed_from(self, before: tuple[LineKey, ...]) -> list[int]:
        """Return where these are other keys than as many before them."""
        if self._base is not None and self._base[0] is before:
            return [self._base[1]]
        return list(compress(range(len(self)), map(operator.is_not, self, before)))

    def __hash__(self) -> int:
        """Agree where the keys agree."""
        return hash(self._sum)

    def __eq__(self, other: object) -> bool:
        """Compare the keys, in their order."""
        return tuple.__eq__(self, other) if isinstance(other, tuple) else NotImplemented


@dataclass(frozen=True, slots=True)
class Meaning:
    """What one line means.

    Attributes:
        problem: what is wrong with it, or what is missing; None if it works.
        line: the line as it was read; None if it could not be read.
        uses: the names of other lines that it needs.
        first_uses: each of those with where it is used first, in the order of the text.
        has_units: whether units are written in it.
        units: what it measures; None in a study without units.
        computed: the line in base units; None in a study without units.
        defines: the names that get their values from a set of equations.
        undetermined: those of them that it does not determine.
    """

    kind: Kind
    name: str | None
    problem: MathError | None = None
    line: Line | None = None
    mathml: str = ""
    domain_mathml: str = ""
    uses: frozenset[str] = frozenset()
    first_uses: tuple[tuple[str, Span], ...] = ()
    is_slider: bool = False
    has_units: bool = False
    units: LineUnits | None = None
    computed: Line | None = None
    defines: tuple[str, ...] = ()
    undetermined: frozenset[str] = frozenset()

    @property
    def names(self) -> tuple[str, ...]:
        """Return all names that the line defines."""
        return self.defines if self.name is None else (self.name, *self.defines)

    @property
    def base_line(self) -> Line | None:
        """Return the line as it is computed: in base units, if units take part."""
        return self.line if self.computed is None else self.computed


def with_problem(meaning: Meaning, problem: MathError) -> Meaning:
    """Return the meaning of a line that has a problem."""
    return replace(meaning, problem=problem)


def read_alone(text: str) -> Line | None:
    """Read a line as if it stood alone, to learn its kind; None if it does not read."""
    line = _read_cached(text, Vocabulary())
    return None if isinstance(line, MathError) else line


def reads_with_others(text: str) -> bool:
    """Check whether a line reads, or may read when other lines define its names."""
    line = _read_cached(text, Vocabulary())
    return may_come(line) if isinstance(line, MathError) else True


def may_come(problem: MathError) -> bool:
    """Check whether another line can cure a problem: then the line is taken as it is."""
    if problem.code == "language.no_value":
        return True
    if not isinstance(problem, UnknownNameError):
        return False
    # A near miss is a slip of the pointer; a product of unknown letters may be a name to come.
    return problem.suggestion is None or bool(problem.letters)


@lru_cache(maxsize=4096)
def name_in_head(text: str) -> str | None:
    """Return the name that a line defines; None if it defines none or is still to be named."""
    name = head_name(text)
    if name is None or is_function_head(text) or slider_value(text):
        return name
    alone = read_alone(text)
    is_unnamed = isinstance(alone, RelationLine | SetLine) and alone.name is None
    return None if is_unnamed else name


def names_of(keys: tuple[LineKey, ...]) -> Vocabulary:
    """Return all names that the lines define, by how they are used in expressions."""
    functions, values = set[str](), set[str]()
    for key in keys:
        name = name_in_head(key.text) or key.given
        if key.disabled or name is None or name in FUNCTIONS or name in CONSTANTS:
            continue
        usage = _usage(key.text)
        if usage is not None:
            (functions if usage == "called" else values).add(name)
    names = Vocabulary(frozenset(functions - values), frozenset(values))
    for key in keys:
        if not key.disabled and split_set(key.text):
            own = own_names(key.text, names)
            names = replace(names, values=names.values | own, sets=names.sets | {(key.text, own)})
    return names


def own_names(text: str, names: Vocabulary) -> frozenset[str]:
    """Return the names that a set of equations gives a value among names that are known.

    x and y belong to the plane: they have values in the set only.
    """
    line = _read_cached(text, _relevant(text, replace(names, sets=frozenset())))
    return (
        frozenset(line.own).difference(PLANE_LETTERS) if isinstance(line, SetLine) else frozenset()
    )


@lru_cache(maxsize=4096)
def _usage(text: str) -> str | None:
    """Return how the name of a line is used: called, as a value, or not at all."""
    if is_function_head(text):
        return "called"
    if split_set(text):
        return None
    if name_in_head(text) is None:
        return "valued" if isinstance(read_alone(text), ValueLine) else "called"
    is_labelled = ":" in text.replace(":=", "=").split("=", 1)[0]
    return None if is_labelled else "valued"


_RUN = re.compile(r"[^\W\d_][\w]*|_\w+")


def _relevant(text: str, vocabulary: Vocabulary) -> Vocabulary:
    """Leave out the names that do not occur in a text, so that its reading can be stored."""
    if len(text) > LINE_LENGTH.value or any(ord(sign) > 127 for sign in text):
        return vocabulary
    parts = _parts(text)
    return replace(
        vocabulary,
        functions=vocabulary.functions & parts,
        values=vocabulary.values & parts,
        letters=vocabulary.letters & parts,
    )


@lru_cache(maxsize=4096)
def _parts(text: str) -> frozenset[str]:
    """Return everything in a text that could be a name: all parts of all runs of letters."""
    parts = set[str]()
    for run in set(_RUN.findall(text)):
        # A name is at most as long as a run; of very long runs only short parts can be names.
        longest = len(run) if len(run) <= 40 else 24
        parts.add(run)
        for start in range(len(run)):
            for stop in range(start + 1, min(start + longest, len(run)) + 1):
                parts.add(run[start:stop])
    return frozenset(parts)


@lru_cache(maxsize=4096)
def _read_cached(text: str, vocabulary: Vocabulary) -> Line | MathError:
    """Read a line, or give what is wrong with it: a bad line is not read anew at every edit."""
    try:
        return read_line(text, vocabulary)
    except MathError as err:
        return err.with_traceback(None)


def read_meaning(key: LineKey, vocabulary: Vocabulary) -> Meaning:
    """Return what a line means among names that are known."""
    vocabulary = _for_own_line(key.text, vocabulary.for_line(key.text))
    line = _read_cached(key.text, _relevant(key.text, vocabulary))
    if isinstance(line, MathError):
        # Once more with all names, for the suggestion.
        line = _read_cached(key.text, vocabulary)
    name = name_in_head(key.text) or key.given
    if isinstance(line, MathError):
        return Meaning(Kind.UNREAD, name, problem=line)
    if isinstance(line, NoteLine):
        return Meaning(Kind.NOTE, None, line=line)
    if isinstance(line, RelationLine | SetLine):
        name = line.name
    first_uses, has_units = _first_uses(line)
    mathml = typeset_line(line, name)
    domain = typeset_domains(line) if isinstance(line, FunctionLine) else ""
    uses = frozenset(used for used, _ in first_uses)
    return Meaning(
        _first_kind(line), name, None, line, mathml, domain, uses, first_uses, key.is_slider,
        has_units, defines=_defined(line),
    )  # fmt: skip


def _for_own_line(text: str, vocabulary: Vocabulary) -> Vocabulary:
    """Return the names for a line; in ``N = 3 N`` the unit is meant, not the name itself."""
    name = name_in_head(text)
    if name is None or name not in vocabulary.values or find_unit(name) is None:
        return vocabulary
    values = vocabulary.values - {name}
    return replace(vocabulary, values=values, letters=vocabulary.letters | {name})


def read_with_units(key: LineKey, vocabulary: Vocabulary) -> Meaning | None:
    """Return what a line means if letters behind numbers are units, though names hide them.

    None if no unit is hidden by a name in it.
    """
    hidden = frozenset(
        name
        for name in _relevant(key.text, vocabulary).values
        if find_unit(name) is not None
    )  # fmt: skip
    if not hidden:
        return None
    meaning = read_meaning(
        key, replace(vocabulary, values=vocabulary.values - hidden, letters=hidden)
    )
    return None if meaning.problem is not None or not meaning.has_units else meaning


def _defined(line: Line) -> tuple[str, ...]:
    """Return the names that get their values from a set of equations."""
    own = line.own if isinstance(line, SetLine) else ()
    return tuple(name for name in own if name not in PLANE_LETTERS)


def _first_kind(line: Line) -> Kind:
    """Return the kind as far as the line alone shows it; what it is made of may say more."""
    match line:
        case FunctionLine():
            return Kind.SEVERAL if len(line.variables) > 1 else Kind.FUNCTION
        case RelationLine():
            return Kind.REGION if line.is_region else Kind.RELATION
        case ValueLine():
            return Kind.PARAMETER
        case SetLine():
            return Kind.EQUATIONS
        case _:
            return Kind.NOTE


def _first_uses(line: Line) -> tuple[tuple[tuple[str, Span], ...], bool]:
    """Return where names are first used in a line, and whether it has units."""
    own = own_variables(line)
    spans: dict[str, Span] = {}
    has_units = False
    for node in line_nodes(line):
        for use in free_parts(node, own):
            if isinstance(use, WITH_UNITS):
                has_units = True
                continue
            name = name_of(use)
            is_own = name in FUNCTIONS or name in SUMMARIES or name in own
            if is_own or (isinstance(use, Name) and name in _NEVER_MISSING):
                continue
            if name not in spans or use.span < spans[name]:
                spans[name] = use.span
    return tuple(sorted(spans.items(), key=lambda pair: pair[1])), has_units
