"""What the lines of a study mean together, compiled.

An analysis depends on the texts only, not on the values of sliders, so that it is made once and
used for every position of the pointer. The analysis after an edit begins from the one before: what
the edit did not touch is neither read nor compiled again.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from types import MappingProxyType

from axis_path.core.catalogue.units import NO_UNIT, UnitProduct, find_unit, read_unit
from axis_path.core.compile.cache import CompileCache
from axis_path.core.compile.compiled import (
    Compiled,
)
from axis_path.core.compile.dependence import (
    names_that_need,
)
from axis_path.core.compile.expressions import Expressions
from axis_path.core.compile.integrals.integrals import holds_integral
from axis_path.core.compile.sets.definitions import SettledSet
from axis_path.core.compile.units.units import (
    MeasuredEquations,
    NamedUnits,
    measured_equations,
    measured_expression,
)
from axis_path.core.dimensions import (
    PLAIN_MEASURE,
    AnyMeasure,
    Measure,
    described,
    dimension_of,
    measures_of,
)
from axis_path.core.dimensions.complain import no_conversion
from axis_path.core.dimensions.expand import in_unit
from axis_path.core.errors import MathError, UnitError
from axis_path.core.evaluate import (
    Expression,
    FullCompiler,
    ListSource,
    Shaped,
    Surroundings,
    UserFunction,
)
from axis_path.core.language import (
    FunctionLine,
    ValueLine,
    Vocabulary,
    read_expression,
)
from axis_path.core.language.tree import AngleUnit, Converted, Node
from axis_path.core.language.walk import has_unit_nodes, names_in
from axis_path.core.lines.meaning import (
    CALLED,
    VALUED,
    Kind,
    LineKeys,
    Meaning,
)
from axis_path.core.threads import COMPUTING, lazy_property

_DEGREES, _RADIANS = read_unit("°"), read_unit("rad")


def _angle_unit(angles: AngleUnit) -> UnitProduct:
    """Return the unit in which a study has its angles."""
    return (_DEGREES if angles is AngleUnit.DEGREES else _RADIANS) or NO_UNIT


#: An expression without variables of its own.
NO_VARIABLES: Mapping[str, Measure] = MappingProxyType({})
#: A typed number, and the names that it uses.
Constant = tuple[Expression, frozenset[str]]
#: Typed numbers, such as the ends of sliders, that are stored for each analysis.
_CACHED_CONSTANTS = 256


@dataclass
class Analysis:
    """All lines with their meanings, and the graph of those that work."""

    unit: AngleUnit
    keys: LineKeys
    meanings: tuple[Meaning, ...]
    vocabulary: Vocabulary
    raw: tuple[Meaning, ...]
    cache: CompileCache
    named: dict[str, Meaning] = field(default_factory=dict)
    marks: dict[str, int] = field(default_factory=dict)
    #: What the names measure; None in a study without units.
    named_units: NamedUnits | None = None
    _constants: dict[tuple[str, str], tuple[Expression, frozenset[str]]] = field(
        default_factory=dict
    )

    #: The sets of equations that read, by the indices of their lines.
    sets: dict[int, SettledSet] = field(default_factory=dict)
    #: The names whose values are found by solving a set, with the index of its line.
    solved_names: dict[str, int] = field(default_factory=dict)

    def __post_init__(self) -> None:
        """Set up the compiler."""
        cache = self.cache
        surroundings = Surroundings(self.unit, self._function, self._value, self.mark)
        compiler = FullCompiler(cache.graph, surroundings)
        compiler.share(cache.lists, cache.list_names, cache.calls, cache.values)
        self.expressions = Expressions(cache, compiler)

    @property
    def lists(self) -> dict[str, ListSource]:
        """Return the lists that expressions run over."""
        return self.cache.lists

    def names(self) -> Vocabulary:
        """Return the names that work, for expressions outside the lines."""
        return Vocabulary(
            frozenset(n for n, m in self.named.items() if m.kind in CALLED),
            frozenset(n for n, m in self.named.items() if m.kind in VALUED),
        )

    @lazy_property
    def written_names(self) -> tuple[str, ...]:
        """Return the names of all lines that take part, in order, with or without a problem."""
        return tuple(
            name
            for key, meaning in zip(self.keys, self.meanings, strict=True)
            if not key.disabled
            for name in meaning.names
        )

    @lazy_property
    def used_by(self) -> dict[str, list[int]]:
        """Return, for every name, the indices of the lines that use it."""
        users: dict[str, list[int]] = {}
        for index, (key, meaning) in enumerate(zip(self.keys, self.meanings, strict=True)):
            if not key.disabled:
                for used in meaning.uses:
                    users.setdefault(used, []).append(index)
        return users

    @lazy_property
    def integral_names(self) -> frozenset[str]:
        """Return the names of the numbers in which integrals stand, directly or by another name."""
        holding = {
            name: None
            for name, meaning in self.named.items()
            if isinstance(meaning.base_line, ValueLine)
            and holds_integral(meaning.base_line.expression)
        }
        names = set(holding).union(*map(self.users, holding))
        return frozenset(n for n in names if n in self.named and self.number_of(n) is not None)

    def number_of(self, name: str) -> Node | None:
        """Return the expression of a number that is computed; None for anything else."""
        definition = self.named.get(name)
        is_number = (
            definition is not None
            and definition.kind is Kind.PARAMETER
            and not definition.is_slider
        )
        if definition is None or not is_number:
            return None
        line = definition.base_line
        return line.expression if isinstance(line, ValueLine) else None

    def expression_of(self, name: str) -> Node | None:
        """Return the expression of a value that works; None for a slider and for anything else."""
        meaning = self._value(name)
        return None if meaning is None or isinstance(meaning, bool) else meaning

    @lazy_property
    def compiled_parts(self) -> dict[tuple[int, tuple[str, ...]], tuple[Node, Shaped]]:
        """Return the parts of objects that were compiled so far; see ``Scope``."""
        return {}

    def users(self, name: str) -> list[str]:
        """Return the names of the lines that need a name."""
        return list(dict.fromkeys(names_that_need(name, self.keys, self.meanings)))

    def _function(self, name: str) -> UserFunction | None:
        definition = self.named.get(name)
        line = None if definition is None else definition.base_line
        if not isinstance(line, FunctionLine):
            return None
        return UserFunction(name, line.variables, line.expression, line.domains)

    def _value(self, name: str) -> Node | bool | None:
        definition = self.named.get(name)
        if definition is None:
            return None
        # A slider's own text holds its value; the graph holds its name.
        if definition.is_slider and definition.computed is None:
            return True
        line = definition.base_line
        if isinstance(line, FunctionLine) and definition.kind in VALUED:
            return line.expression
        return line.expression if isinstance(line, ValueLine) else None

    def mark(self, name: str) -> object:
        """Return what stands for the present meaning of a name: equal marks mean the same."""
        return self.marks.get(name, name)

    def compiled(self, name: str) -> Compiled:
        """Return a working line in the graph.

        Raises:
            MathError: something it needs is missing, or a limit is reached.
        """
        line = self.cache.compiled[self.marks[name]]
        if isinstance(line, MathError):
            raise line
        return line[1]

    def measured(
        self, node: Node, text: str, variables: Mapping[str, Measure] = NO_VARIABLES
    ) -> tuple[AnyMeasure | None, Node]:
        """Return what an expression measures, None for a plain number, and it in base units.

        Args:
            node: the expression.
            text: in which it stands.
            variables: what its own variables measure.

        Raises:
            UnitError: units in it do not fit together.
        """
        if self.named_units is None and not has_unit_nodes(node):
            return None, node
        names = self.named_units or NamedUnits()
        try:
            measure, base = measured_expression(text, node, names, self.unit, variables)
        except UnitError:
            other = self._read_with_units(text)
            if other is None:
                raise
            measure, base = measured_expression(text, other, names, self.unit, variables)
        is_plain = all(part.term.known.is_plain for part in measures_of(measure))
        return (None if is_plain else measure), base

    def _read_with_units(self, text: str) -> Node | None:
        """Return an expression whose letters behind numbers are units, though names hide them."""
        names = self.names()
        hidden = frozenset(name for name in names.values if find_unit(name) is not None)
        if not hidden:
            return None
        weak = replace(names, values=names.values - hidden, letters=hidden)
        try:
            return read_expression(text, weak)
        except MathError:
            return None

    def measured_equations(
        self, equations: Sequence[tuple[str, tuple[Node, ...]]], unknowns: Sequence[str]
    ) -> MeasuredEquations:
        """Return equations in base units, with what their unknowns measure.

        Args:
            equations: the text of each, and its terms.
            unknowns: the names that have no value.

        Raises:
            UnitError: units in one of them do not fit together.
        """
        has_units = any(has_unit_nodes(term) for _, terms in equations for term in terms)
        if self.named_units is None and not has_units:
            plain = dict.fromkeys(unknowns, PLAIN_MEASURE)
            sides = (PLAIN_MEASURE,) * len(equations)
            return MeasuredEquations(tuple(terms for _, terms in equations), plain, sides)
        return measured_equations(
            equations, self.named_units or NamedUnits(), self.unit, unknowns
        )  # fmt: skip

    def constant(self, text: str, unit: UnitProduct = NO_UNIT) -> tuple[Expression, frozenset[str]]:
        """Return a typed number in the graph, and the names it uses; it is stored.

        Args:
            text: a number of the unit, or a quantity that can be shown in it.
            unit: of which the number is.

        Raises:
            MathError: it does not read, something it needs is missing, or it is no number.
        """
        with COMPUTING:
            key = (text, unit.symbol)
            if key not in self._constants:
                read = read_expression(text, self.names())
                node = self._number_of_unit(read, text, unit)
                if len(self._constants) >= _CACHED_CONSTANTS:
                    self._constants.clear()
                self._constants[key] = self.expressions.compile_constant(node), names_in(read)
            return self._constants[key]

    def _number_of_unit(self, read: Node, text: str, unit: UnitProduct) -> Node:
        """Return a typed number as one of a unit.

        Raises:
            UnitError: it is a quantity that cannot be shown in the unit.
        """
        if not unit.parts:
            measure, node = self.measured(read, text)
            if measure is not None:
                dimension = dimension_of(measures_of(measure)[0])
                if dimension.without_angle.is_plain:
                    # An angle is a number: of radians or of degrees, as the study has them.
                    return in_unit(node, _angle_unit(self.unit), self.unit)
                raise UnitError(
                    f"A plain number is needed here, but `{text}` is {described(dimension)}.",
                    position=(0, len(text)),
                )
            return node
        measure, node = self.measured(read, text)
        if measure is None:
            return node
        dimension = dimension_of(measures_of(measure)[0])
        if dimension.without_angle != unit.dimension.without_angle:
            raise no_conversion(text, Converted(read, unit, read.span), dimension, ())
        return in_unit(node, unit, self.unit)

    def uses_of(self, text: str) -> frozenset[str]:
        """Return the names that a typed number uses; none if it does not read."""
        try:
            return names_in(read_expression(text, self.names()))
        except MathError:
            return frozenset()

    def meaning(self, name: str) -> Meaning | None:
        """Return the line that works under a name."""
        return self.named.get(name)

    def copy_names(self, other: Analysis) -> None:
        """Hand what stands under each name to the analysis after an edit."""
        other.named, other.marks = dict(self.named), dict(self.marks)
        other.sets, other.solved_names = dict(self.sets), dict(self.solved_names)

    def solved_in(self, uses: frozenset[str]) -> set[str]:
        """Return the names found by solving on which names depend, directly or by others."""
        found, seen, waiting = set[str](), set(uses), sorted(uses)
        if not self.solved_names:
            return found
        for name in waiting:
            if name in self.solved_names:
                found.add(name)
            meaning = self.named.get(name)
            more = set() if meaning is None else meaning.uses - seen
            seen |= more
            waiting += sorted(more)
        return found
