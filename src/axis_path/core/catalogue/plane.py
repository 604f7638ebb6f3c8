"""Points and angles: polar and rectangular coordinates, degrees and radians."""

from fractions import Fraction

from axis_path.core.arithmetic import ball_special, enclosure_special, floats
from axis_path.core.catalogue.entry import Argument, Backends, FunctionEntry, Group
from axis_path.core.catalogue.unit_rules import ALIKE, RATIO, UnitRule

_POINT = (Argument("x", "to the right, or a point for both"), Argument("y", "upwards"))
_POINT_FROM = (
    *_POINT,
    Argument(
        "from", "where the range of a full turn begins; else it ends at 180°", is_optional=True
    ),
)
#: The angle, moved by full turns to where its range begins.
_TURNED = "atan2(v, u) + 2 pi ceil((w - atan2(v, u))/(2 pi))"

PLANE = (
    FunctionEntry(
        name="radius",
        units=ALIKE,
        group=Group.PLANE,
        arguments=_POINT,
        meaning="how far the point (x, y) is from (0, 0)",
        defined="for every point",
        returns="a number ≥ 0",
        example="radius(3, 4)",
        expansion={2: "sqrt(u^2 + v^2)"},
    ),
    FunctionEntry(
        name="angle",
        units=UnitRule((), alike=(0, 1), plain=(2,)),
        group=Group.PLANE,
        arguments=_POINT_FROM,
        meaning="the angle of the point (x, y), from the axis to the right, counterclockwise",
        defined="except at (0, 0)",
        returns="an angle over −180° and up to 180°, or in the turn that begins at the third value",
        example="angle(3, 4)",
        expansion={2: "atan2(v, u)", 3: _TURNED},
        takes_angle=(2,),
        returns_angle=True,
    ),
    FunctionEntry(
        name="atan2",
        units=RATIO,
        group=Group.PLANE,
        arguments=(Argument("y", "upwards"), Argument("x", "to the right")),
        meaning="the angle of the point (x, y), with y first",
        defined="except at (0, 0)",
        returns="an angle over −180° and up to 180°, in the unit of the study",
        example="atan2(4, 3)",
        backends=Backends(
            floats.angle_of, enclosure_special.angle_of, ball_special.angle_of, "atan2"
        ),
        derivative=("v/(u^2 + v^2)", "-u/(u^2 + v^2)"),
        returns_angle=True,
        rough=("u",),
    ),
    FunctionEntry(
        name="polar",
        units=UnitRule((Fraction(1),), alike=(0, 1), plain=(2,), second=()),
        group=Group.PLANE,
        arguments=_POINT_FROM,
        meaning="the polar coordinates of the point (x, y): the radius first, then the angle",
        defined="except at (0, 0)",
        returns="a point (radius, angle), the angle in the unit of the study",
        example="polar(3, 4)",
        components={2: ("sqrt(u^2 + v^2)", "atan2(v, u)"), 3: ("sqrt(u^2 + v^2)", _TURNED)},
        takes_angle=(2,),
        returns_angle=True,
    ),
    FunctionEntry(
        name="rectangular",
        units=UnitRule((Fraction(1),), plain=(1,), second=(Fraction(1),)),
        group=Group.PLANE,
        arguments=(
            Argument("r", "the radius, or a point (radius, angle) for both"),
            Argument("angle", "in the unit of the study"),
        ),
        meaning="the point at a radius and an angle",
        defined="for every pair",
        returns="a point (x, y)",
        example="rectangular(5, 60°)",
        components={2: ("u cos(v)", "u sin(v)")},
        takes_angle=(1,),
    ),
    FunctionEntry(
        name="to_degrees",
        group=Group.PLANE,
        arguments=(Argument("x", "a number of radians"),),
        meaning="how many degrees x radians are",
        defined="for every number",
        returns="a number",
        example="to_degrees(pi/6)",
        expansion={1: "180 u/pi"},
        inverse="to_radians",
    ),
    FunctionEntry(
        name="to_radians",
        group=Group.PLANE,
        arguments=(Argument("x", "a number of degrees"),),
        meaning="how many radians x degrees are",
        defined="for every number",
        returns="a number",
        example="to_radians(30)",
        expansion={1: "pi u/180"},
        inverse="to_degrees",
    ),
)
