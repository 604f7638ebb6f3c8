"""Equations and inequalities, as kinds of lines."""

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.draw import RealRelation, Window, draw_relation
from axis_path.core.errors import DomainError
from axis_path.core.evaluate import RealSurface
from axis_path.core.kinds.drawing import Drawing
from axis_path.core.kinds.kind import LineKind, Points, name_of
from axis_path.core.kinds.relations.drawing import draw_equation
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.meaning import Kind


def _draw(real: RealRelation, line: Definition, window: Window, _unit: AngleUnit) -> Drawing:
    return draw_equation(name_of(line), real, window, is_hidden=line.hidden)


def _curve(real: RealRelation) -> RealSurface:
    if not real.is_equation:
        raise DomainError("A region has no line to meet: write its border as an equation.")
    return real.conditions[0]


def _reach(real: RealRelation, window: Window) -> list[Points]:
    return draw_relation(real, window).solid if real.is_equation else []


def _kind(kind: Kind) -> LineKind:
    return LineKind(kind, Curves.real_relation, _draw, curve=_curve, reach=_reach, has_family=True)


RELATION, REGION = _kind(Kind.RELATION), _kind(Kind.REGION)
