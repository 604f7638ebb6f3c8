"""All lines of a study in one position of its sliders, as they are drawn."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from typing import TypeVar

import numpy as np

from axis_path.core.arithmetic import Ball
from axis_path.core.compile.definition import Definition
from axis_path.core.draw import RealRelation, Window
from axis_path.core.errors import MathError, StoppedError
from axis_path.core.evaluate import RealFunction, RealPath, RealSurface
from axis_path.core.kinds.drawing import NOTHING, Drawing, stopped
from axis_path.core.kinds.kind import Points, Realised
from axis_path.core.kinds.registry import KINDS
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.family import FamilyState
from axis_path.core.lines.sliders import SliderRange
from axis_path.core.threads import lazy_property

R = TypeVar("R")


@dataclass(frozen=True)
class State:
    """A study in one state of its sliders.

    Attributes:
        ranges: the range of each slider, or what is wrong with it, by id.
        end_uses: what the ends of sliders use, by the names of the sliders.
        realised: the lines that work, as they are drawn, by id.
        problems: further problems that only the values of the sliders make, by id.
        computed: the values of parameters that are computed from others, as text, by id.
        sizes: how large lists and matrices are, in words, by id.
        families: the families that are drawn, by the id of their line.
        runners: where the runners of paths are, or why they are nowhere, by id.
        typed: the values of sliders that were typed as expressions, by id.
        complex_ids: the lines whose points are complex numbers.
    """

    definitions: list[Definition]
    unit: AngleUnit = AngleUnit.RADIANS
    ranges: dict[int, SliderRange | MathError] = field(default_factory=dict)
    end_uses: Mapping[str, frozenset[str]] = field(default_factory=dict)
    realised: dict[int, Realised] = field(default_factory=dict)
    problems: dict[int, MathError] = field(default_factory=dict)
    computed: dict[int, str] = field(default_factory=dict)
    sizes: dict[int, str] = field(default_factory=dict)
    families: dict[int, FamilyState] = field(default_factory=dict)
    runners: dict[int, Ball | MathError] = field(default_factory=dict)
    typed: dict[int, Fraction] = field(default_factory=dict)
    complex_ids: set[int] = field(default_factory=set)

    @lazy_property
    def functions(self) -> dict[int, RealFunction]:
        """Return the functions that work, by the ids of their lines."""
        return self._of(RealFunction)

    @lazy_property
    def paths(self) -> dict[int, RealPath]:
        """Return the paths and curves by an angle that work, by the ids of their lines."""
        return self._of(RealPath)

    @lazy_property
    def relations(self) -> dict[int, RealRelation]:
        """Return the equations and inequalities that work, by the ids of their lines."""
        return self._of(RealRelation)

    @lazy_property
    def surfaces(self) -> dict[int, RealSurface]:
        """Return the functions of x and y that work, by the ids of their lines."""
        return self._of(RealSurface)

    @lazy_property
    def points(self) -> dict[int, Points]:
        """Return the points and lists of points, (n, 2) floats, by the ids of their lines."""
        return self._of(np.ndarray)

    def _of(self, kind: type[R]) -> dict[int, R]:
        return {id_: real for id_, real in self.realised.items() if isinstance(real, kind)}

    def draw(self, definition: Definition, window: Window) -> Drawing:
        """Draw a line of any kind; nothing of one that is not drawn, or that took too long."""
        real = self.realised.get(definition.id)
        if real is None:
            return NOTHING
        try:
            return KINDS[definition.kind].draw(real, definition, window, self.unit)
        except StoppedError as err:
            return stopped(None, err)
