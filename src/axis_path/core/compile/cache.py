"""What analyses share: the graph, and what was compiled for which meaning of a line."""

from __future__ import annotations

from dataclasses import dataclass, field

from axis_path.core.compile.compiled import (
    Compiled,
    CompiledFunction,
)
from axis_path.core.compile.sets.definitions import SettledSet
from axis_path.core.compile.units.units import MeasuredLine
from axis_path.core.dimensions.curve_units import CurveUnits
from axis_path.core.errors import MathError, UnitError
from axis_path.core.evaluate import (
    Expression,
    Graph,
    ListSource,
    Result,
    Shaped,
)
from axis_path.core.language.tree import (
    AngleUnit,
)
from axis_path.core.limits import STEPS
from axis_path.core.lines.meaning import (
    Kind,
)
from axis_path.core.threads import SharedCache

_MOST_RESULTS = 2_000
_MOST_SOLVED = 64


@dataclass
class CompileCache:
    """The graph that analyses share, with what was compiled for which meaning of a line.

    A line is known by its mark, a number that stands for its tree and the marks of all it uses.
    """

    unit: AngleUnit
    graph: Graph = field(default_factory=Graph)
    marks: dict[object, int] = field(default_factory=dict)
    compiled: dict[int, tuple[Kind, Compiled] | MathError] = field(default_factory=dict)
    #: Lines in base units, in studies with units, or why their units do not fit.
    measured: dict[int, MeasuredLine | UnitError] = field(default_factory=dict)
    #: Sets of equations, or why they do not read.
    sets: dict[int, SettledSet | MathError] = field(default_factory=dict)
    #: Their solutions, by all that they depend on.
    solved: SharedCache[tuple[object, ...], object] = field(
        default_factory=lambda: SharedCache(_MOST_SOLVED)
    )
    #: Functions, and expressions of x and y, as numbers on axes with units.
    in_units: dict[tuple[CompiledFunction, CurveUnits], CompiledFunction] = field(
        default_factory=dict
    )
    on_plane: dict[tuple[Expression, CurveUnits, bool], Expression] = field(default_factory=dict)
    lists: dict[str, ListSource] = field(default_factory=dict)
    list_names: dict[ListSource, str] = field(default_factory=dict)
    calls: dict[tuple[object, ...], Shaped] = field(default_factory=dict)
    values: dict[object, Shaped] = field(default_factory=dict)
    #: Results of expressions, by all that they depend on.
    results: SharedCache[tuple[object, ...], Result] = field(
        default_factory=lambda: SharedCache(_MOST_RESULTS)
    )
    #: Which of them took longer than one calculation may take, and what was said of that.
    stopped: SharedCache[tuple[object, ...], str] = field(
        default_factory=lambda: SharedCache(_MOST_RESULTS)
    )

    #: How many steps the graph had when the lines were compiled.
    settled: int = 0

    @property
    def is_worn(self) -> bool:
        """Check whether the graph is full of what was asked, and not of the lines themselves."""
        return self.is_full and len(self.graph.steps) > self.settled + STEPS.value // 4

    @property
    def is_full(self) -> bool:
        """Check whether so much was compiled here that a new one is better."""
        return len(self.graph.steps) > STEPS.value // 2
