"""What the lines of a study mean together: names, order of dependence, what is wrong where.

An analysis depends on the texts only, not on the values of sliders, so that it is made once and
used for every position of the hand.
"""

from __future__ import annotations

import threading
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import lru_cache

from axis_path.core.catalogue import CONSTANTS, FUNCTIONS
from axis_path.core.errors import CycleError, MathError, NameTakenError, NoValueError
from axis_path.core.evaluate import (
    Compiler,
    Expression,
    Graph,
    Op,
    Surroundings,
    UserFunction,
)
from axis_path.core.language import (
    FunctionLine,
    Line,
    NoteLine,
    ParameterLine,
    Vocabulary,
    head_name,
    is_function_head,
    read_line,
    typeset_domain,
    typeset_line,
)
from axis_path.core.language.tree import AngleUnit, Call, Name, Node, domain_nodes, walk


class Kind(StrEnum):
    """What a line is."""

    FUNCTION = "function"
    PARAMETER = "parameter"
    NOTE = "note"
    UNREAD = "unread"


@dataclass(frozen=True, slots=True)
class LineKey:
    """What an analysis needs of a line; the text of a slider holds no value here."""

    text: str
    aside: bool
    given: str | None
    is_slider: bool


@dataclass(frozen=True, slots=True)
class Meaning:
    """What one line means.

    Attributes:
        problem: what is wrong with it, or what is missing; None if it works.
        line: the line as it was read; None if it could not be read.
        uses: the names of other lines that it needs.
    """

    kind: Kind
    name: str | None
    problem: MathError | None = None
    line: Line | None = None
    mathml: str = ""
    domain_mathml: str = ""
    uses: frozenset[str] = frozenset()
    is_slider: bool = False


@dataclass(frozen=True)
class CompiledFunction:
    """A function of the study in the graph; bounds are expressions without a variable."""

    expression: Expression
    low: Expression | None
    high: Expression | None
    without: tuple[Expression, ...]


@dataclass
class Analysis:
    """All lines with their meanings, and the graph of those that work."""

    unit: AngleUnit
    meanings: tuple[Meaning, ...]
    _named: dict[str, Meaning] = field(default_factory=dict)
    _lock: threading.RLock = field(default_factory=threading.RLock)
    _compiled: dict[str, CompiledFunction] = field(default_factory=dict)

    def __post_init__(self) -> None:
        """Set up the graph."""
        self._graph = Graph()
        surroundings = Surroundings(self.unit, self._function, self._parameter)
        self._compiler = Compiler(self._graph, surroundings)

    def vocabulary(self) -> Vocabulary:
        """Give the names that work, for expressions outside the lines."""
        return Vocabulary(
            frozenset(n for n, m in self._named.items() if m.kind is Kind.FUNCTION),
            frozenset(n for n, m in self._named.items() if m.kind is Kind.PARAMETER),
        )

    def meaning(self, name: str) -> Meaning | None:
        """Give the line that works under a name."""
        return self._named.get(name)

    def _function(self, name: str) -> UserFunction | None:
        found = self._named.get(name)
        if found is None or not isinstance(found.line, FunctionLine):
            return None
        line = found.line
        return UserFunction(name, line.variable, line.expression, line.domain)

    def _parameter(self, name: str) -> Node | bool | None:
        found = self._named.get(name)
        if found is None or not isinstance(found.line, ParameterLine):
            return None
        # A slider's own text holds its value; the graph holds its name.
        return True if found.is_slider else found.line.expression

    def add(self, name: str, meaning: Meaning) -> None:
        """Let a line take part under a name."""
        self._named[name] = meaning

    def compile_function(self, name: str) -> CompiledFunction:
        """Give a working function in the graph.

        Raises:
            MathError: something it needs is missing, or a limit is reached.
        """
        with self._lock:
            if name not in self._compiled:
                line = self._named[name].line
                if not isinstance(line, FunctionLine):
                    raise TypeError(f"{name} is no function")
                self._compiled[name] = self._compile(line)
            return self._compiled[name]

    def _compile(self, line: FunctionLine) -> CompiledFunction:
        variable = self._graph.add(Op.VARIABLE)
        body = self._compiler.compile(line.expression, {line.variable: variable})
        low, high = line.domain.low, line.domain.high
        return CompiledFunction(
            Expression(self._graph, body, self._lock),
            None if low is None else self.compile_constant(low.value),
            None if high is None else self.compile_constant(high.value),
            tuple(self.compile_constant(value) for value in line.domain.without),
        )

    def compile_constant(self, node: Node) -> Expression:
        """Give an expression without a variable in the graph.

        Raises:
            MathError: something it needs is missing, or a limit is reached.
        """
        with self._lock:
            step = self._compiler.compile(node, {})
            return Expression(self._graph, step, self._lock)


@lru_cache(maxsize=64)
def analyse(unit: AngleUnit, keys: tuple[LineKey, ...]) -> Analysis:
    """Read all lines of a study and find out what each means among the others."""
    functions, values = _names(keys)
    vocabulary = Vocabulary(functions, values)
    meanings = [_read(key, vocabulary) for key in keys]
    _refuse_doubles(keys, meanings)
    _find_missing(keys, meanings, vocabulary)
    _find_cycles(keys, meanings)
    _spread_problems(keys, meanings)
    analysis = Analysis(unit, tuple(meanings))
    for key, meaning in zip(keys, meanings, strict=True):
        if not key.aside and meaning.problem is None and meaning.name is not None:
            analysis.add(meaning.name, meaning)
    return _compile_all(analysis, keys, meanings)


def _compile_all(
    analysis: Analysis, keys: tuple[LineKey, ...], meanings: list[Meaning]
) -> Analysis:
    """Compile every function once, so that what only the graph can refuse is known now."""
    checked = list(meanings)
    for index, (key, meaning) in enumerate(zip(keys, meanings, strict=True)):
        if key.aside or meaning.problem is not None or meaning.name is None:
            continue
        try:
            if isinstance(meaning.line, FunctionLine):
                analysis.compile_function(meaning.name)
            elif isinstance(meaning.line, ParameterLine):
                analysis.compile_constant(meaning.line.expression)
        except MathError as err:
            checked[index] = _with_problem(meaning, err)
    analysis.meanings = tuple(checked)
    return analysis


def _names(keys: tuple[LineKey, ...]) -> tuple[frozenset[str], frozenset[str]]:
    functions, values = set[str](), set[str]()
    for key in keys:
        if key.aside:
            continue
        name = head_name(key.text) or key.given
        if name is None or name in FUNCTIONS or name in CONSTANTS:
            continue
        is_function = is_function_head(key.text) or head_name(key.text) is None
        (functions if is_function else values).add(name)
    return frozenset(functions - values), frozenset(values)


@lru_cache(maxsize=4096)
def _read_cached(text: str, vocabulary: Vocabulary) -> Line | MathError:
    """Read a line, or give what is wrong with it: a bad line is not read anew at every edit."""
    try:
        return read_line(text, vocabulary)
    except MathError as err:
        return err.with_traceback(None)


def _relevant(text: str, vocabulary: Vocabulary) -> Vocabulary:
    """Leave out the names that do not occur in a text, so that its reading can be kept."""
    if any(ord(sign) > 127 for sign in text):
        return vocabulary
    return Vocabulary(
        frozenset(name for name in vocabulary.functions if name in text),
        frozenset(name for name in vocabulary.values if name in text),
    )


def _read(key: LineKey, vocabulary: Vocabulary) -> Meaning:
    name = head_name(key.text) or key.given
    line = _read_cached(key.text, _relevant(key.text, vocabulary))
    if isinstance(line, MathError):
        # Once more with all names, for the suggestion.
        line = _read_cached(key.text, vocabulary)
    if isinstance(line, MathError):
        return Meaning(Kind.UNREAD, name, problem=line)
    if isinstance(line, NoteLine):
        return Meaning(Kind.NOTE, None, line=line)
    uses = _used_names(line)
    mathml = typeset_line(line, name)
    if isinstance(line, FunctionLine):
        domain = typeset_domain(line.domain, line.variable)
        return Meaning(Kind.FUNCTION, name, None, line, mathml, domain, uses)
    return Meaning(Kind.PARAMETER, line.name, None, line, mathml, "", uses, key.is_slider)


def _expressions(line: Line) -> tuple[Node, ...]:
    if isinstance(line, FunctionLine):
        return (line.expression, *domain_nodes(line.domain))
    return (line.expression,) if isinstance(line, ParameterLine) else ()


def _used_names(line: Line) -> frozenset[str]:
    own = line.variable if isinstance(line, FunctionLine) else None
    found = set[str]()
    for expression in _expressions(line):
        for node in walk(expression):
            if isinstance(node, Name) and node.name != own and node.name not in CONSTANTS:
                found.add(node.name)
            elif isinstance(node, Call) and node.function not in FUNCTIONS:
                found.add(node.function)
    return frozenset(found)


def _with_problem(meaning: Meaning, problem: MathError) -> Meaning:
    return replace(meaning, problem=problem)


def _refuse_doubles(keys: tuple[LineKey, ...], meanings: list[Meaning]) -> None:
    first: dict[str, int] = {}
    for index, (key, meaning) in enumerate(zip(keys, meanings, strict=True)):
        if key.aside or meaning.name is None or meaning.kind is Kind.UNREAD:
            continue
        if meaning.name in first:
            start = key.text.find(meaning.name)
            error = NameTakenError(
                f"`{meaning.name}` is defined already, in line {first[meaning.name] + 1}. "
                "Change it there, or choose another name here.",
                position=(max(start, 0), max(start, 0) + len(meaning.name)),
            )
            meanings[index] = _with_problem(meaning, error)
        else:
            first[meaning.name] = index


def _find_missing(
    keys: tuple[LineKey, ...], meanings: list[Meaning], vocabulary: Vocabulary
) -> None:
    """Name the letters without a value, all at once for a line."""
    known = vocabulary.functions | vocabulary.values
    for index, (key, meaning) in enumerate(zip(keys, meanings, strict=True)):
        if key.aside or meaning.problem is not None or meaning.line is None:
            continue
        letters = tuple(
            dict.fromkeys(
                node.name
                for expression in _expressions(meaning.line)
                for node in sorted(walk(expression), key=lambda each: each.span)
                if isinstance(node, Name) and node.name in meaning.uses and node.name not in known
            )
        )
        if letters:
            first = min(
                node.span
                for expression in _expressions(meaning.line)
                for node in walk(expression)
                if isinstance(node, Name) and node.name == letters[0]
            )
            meanings[index] = _with_problem(meaning, _no_value(letters, first))


def _no_value(letters: tuple[str, ...], position: tuple[int, int]) -> NoValueError:
    if len(letters) == 1:
        message = f"`{letters[0]}` has no value yet: make it a slider?"
    else:
        names = ", ".join(f"`{name}`" for name in letters[:-1])
        message = f"{names} and `{letters[-1]}` have no value yet: make them sliders?"
    return NoValueError(message, position=position, letters=letters)


def _working(keys: tuple[LineKey, ...], meanings: list[Meaning]) -> dict[str, int]:
    return {
        meaning.name: index
        for index, (key, meaning) in enumerate(zip(keys, meanings, strict=True))
        if not key.aside and meaning.name is not None and meaning.problem is None
    }


def _find_cycles(keys: tuple[LineKey, ...], meanings: list[Meaning]) -> None:
    by_name = _working(keys, meanings)
    for name, index in by_name.items():
        cycle = _cycle_through(name, by_name, meanings)
        if cycle:
            names = " → ".join(f"`{each}`" for each in [*cycle, cycle[0]])
            message = (
                f"`{name}` needs itself." if len(cycle) == 1
                else f"These need one another in a circle: {names}."
            )  # fmt: skip
            span = (0, len(keys[index].text))
            meanings[index] = _with_problem(meanings[index], CycleError(message, position=span))


def _cycle_through(name: str, by_name: dict[str, int], meanings: list[Meaning]) -> list[str]:
    """Give the shortest circle of names from ``name`` back to it, empty if there is none."""
    paths = {name: [name]}
    waiting = [name]
    for current in waiting:
        for used in sorted(meanings[by_name[current]].uses):
            if used == name:
                return paths[current]
            if used in by_name and used not in paths:
                paths[used] = [*paths[current], used]
                waiting.append(used)
    return []


def _spread_problems(keys: tuple[LineKey, ...], meanings: list[Meaning]) -> None:
    """Give lines that need a line with a problem a problem of their own."""
    broken = {
        meaning.name: meaning.problem
        for key, meaning in zip(keys, meanings, strict=True)
        if not key.aside and meaning.name is not None and meaning.problem is not None
    }
    working = _working(keys, meanings)
    broken = {name: problem for name, problem in broken.items() if name not in working}
    changed = True
    while changed:
        changed = False
        for index, (key, meaning) in enumerate(zip(keys, meanings, strict=True)):
            needed = sorted(meaning.uses & broken.keys())
            if key.aside or meaning.problem is not None or not needed:
                continue
            cause = broken[needed[0]]
            letters = cause.letters if cause is not None else ()
            error = NoValueError(
                f"`{needed[0]}` has a problem of its own, so there is no value here yet.",
                position=(0, len(key.text)),
                letters=letters,
            )
            meanings[index] = _with_problem(meaning, error)
            if meaning.name is not None:
                broken[meaning.name] = error
            changed = True
