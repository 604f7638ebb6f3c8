"""What proved numbers are computed among, and what is noted of their values."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.evaluate.graph.graph import Graph
from axis_path.core.evaluate.graph.shapes import ListSource, Shaped
from axis_path.core.evaluate.objects.step_algebra import Compile
from axis_path.core.language.tree import Node


@dataclass
class Scope:
    """A study in one position of its sliders, as proved numbers are computed in it.

    Attributes:
        graph: in which expressions are compiled.
        compile_plain: compiles an expression in which no object takes part.
        lists: where the elements of lists come from.
        values: the sliders.
        seed: of random numbers.
        compiled: what was compiled, by the node's identity and its variables; the node is kept.
    """

    graph: Graph
    compile_plain: Compile
    lists: Mapping[str, ListSource]
    values: Parameters
    seed: int = 0
    compiled: dict[tuple[int, tuple[str, ...]], tuple[Node, Shaped]] = field(default_factory=dict)


@dataclass
class Notes:
    """What is to be said of a value beside its digits.

    Attributes:
        condition: the greatest condition number of a matrix that was inverted.
        is_too_large: whether a matrix was too large for exact work.
        is_bounded: whether it rests on floats with error bounds, which do not get any finer.
    """

    condition: float = 1
    is_too_large: bool = False
    is_bounded: bool = False

    def add(self, other: Notes) -> None:
        """Take over the notes of a value that is used."""
        self.condition = max(self.condition, other.condition)
        self.is_too_large |= other.is_too_large
        self.is_bounded |= other.is_bounded
