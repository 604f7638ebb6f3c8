"""All lines of a study in one position of its sliders, as they are drawn."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball
from axis_path.core.compile.definition import Definition
from axis_path.core.draw import RealRelation, Window
from axis_path.core.errors import MathError, StoppedError
from axis_path.core.evaluate import RealFunction, RealPath, RealSurface
from axis_path.core.kinds.drawing import NOTHING, Drawing, draw_function, stopped
from axis_path.core.kinds.level_drawing import draw_map
from axis_path.core.kinds.path_drawing import draw_path
from axis_path.core.kinds.point_drawing import draw_points
from axis_path.core.kinds.relation_drawing import draw_equation
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.family import FamilyState
from axis_path.core.lines.sliders import SliderRange

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class State:
    """A study in one state of its sliders.

    Attributes:
        functions: the functions that work, by the id of their line.
        paths: the paths and curves by an angle that work, by the id of their line.
        relations: the equations and inequalities that work, by the id of their line.
        surfaces: the functions of x and y that work, by the id of their line.
        points: the points, and lists of points, by the id of their line, (n, 2) floats each.
        problems: further problems that only the values of the sliders make, by id.
        computed: the values of parameters that are computed from others, as text, by id.
        ranges: the range of each slider, or what is wrong with it, by id.
        families: the families that are drawn, by the id of their line.
        runners: where the runners of paths are, or why they are nowhere, by id.
        end_uses: what the ends of sliders use, by the names of the sliders.
        typed: the values of sliders that were typed as expressions, by id.
    """

    definitions: list[Definition]
    functions: dict[int, RealFunction]
    paths: dict[int, RealPath]
    relations: dict[int, RealRelation]
    surfaces: dict[int, RealSurface]
    points: dict[int, Floats]
    problems: dict[int, MathError]
    computed: dict[int, str]
    unit: AngleUnit = AngleUnit.RADIANS
    ranges: dict[int, SliderRange | MathError] = field(default_factory=dict)
    end_uses: Mapping[str, frozenset[str]] = field(default_factory=dict)
    runners: dict[int, Ball | MathError] = field(default_factory=dict)
    families: dict[int, FamilyState] = field(default_factory=dict)
    typed: dict[int, Fraction] = field(default_factory=dict)

    def draw(self, definition: Definition, window: Window) -> Drawing:
        """Draw a line of any kind; nothing of one that is not drawn, or that took too long."""
        try:
            return self._drawing(definition, window)
        except StoppedError as err:
            return stopped(None, err)

    def _drawing(self, definition: Definition, window: Window) -> Drawing:
        id_, is_hidden = definition.id, definition.hidden
        if id_ in self.functions:
            return draw_function(self.functions[id_], window, is_hidden=is_hidden)
        if id_ in self.paths:
            return draw_path(self.paths[id_], window, self.unit, is_hidden=is_hidden)
        name = definition.name or f"“{definition.text}”"
        if id_ in self.relations:
            return draw_equation(name, self.relations[id_], window, is_hidden=is_hidden)
        if id_ in self.surfaces:
            return draw_map(name, self.surfaces[id_], window, is_hidden=is_hidden)
        if id_ in self.points:
            return draw_points(name, self.points[id_], window, is_hidden=is_hidden)
        return NOTHING
