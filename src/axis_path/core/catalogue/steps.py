"""Parts and steps: the size, the sign, the whole part, and the least and the greatest."""

import numpy as np

from axis_path.core.arithmetic import analytic, ball, ball_functions, enclosure
from axis_path.core.arithmetic.arrays import large, ordering
from axis_path.core.catalogue.entry import Argument, Backends, FunctionEntry, Group, Parity
from axis_path.core.catalogue.lists import of_list
from axis_path.core.catalogue.unit_rules import ALIKE, COUNTS, KEEPS

_NUMBER = (Argument("x", "a number"),)
_TWO = (Argument("x", "a number"), Argument("y", "a number, and more if wanted"))
_EVERYWHERE = "for every number"

STEPS = (
    FunctionEntry(
        name="abs",
        units=KEEPS,
        group=Group.STEPS,
        arguments=_NUMBER,
        meaning="the size of a number, without its sign; also written |x|",
        defined=_EVERYWHERE,
        returns="a number ≥ 0",
        example="abs(x - 2)",
        backends=Backends(np.abs, enclosure.absolute, ball.absolute, "Abs", analytic.absolute),
        derivative=("u/abs(u)",),
        rough=("u",),
        parity=Parity.EVEN,
    ),
    FunctionEntry(
        name="sign",
        units=COUNTS,
        group=Group.STEPS,
        arguments=_NUMBER,
        meaning="−1, 0 or 1, as x is negative, zero or positive",
        defined=_EVERYWHERE,
        returns="−1, 0 or 1",
        example="sign(x)",
        backends=Backends(np.sign, enclosure.sign, ball_functions.sign, "sign", analytic.sign),
        derivative=("0/u",),
        rough=("u",),
        parity=Parity.ODD,
    ),
    FunctionEntry(
        name="floor",
        group=Group.STEPS,
        arguments=_NUMBER,
        meaning="the greatest whole number that is at most x",
        defined=_EVERYWHERE,
        returns="a whole number",
        example="floor(x)",
        backends=Backends(np.floor, enclosure.floor, ball_functions.floor, "floor", analytic.floor),
        derivative=("0/(u - floor(u))",),
        rough=("sin(pi u)",),
    ),
    FunctionEntry(
        name="ceil",
        group=Group.STEPS,
        arguments=_NUMBER,
        meaning="the smallest whole number that is at least x",
        defined=_EVERYWHERE,
        returns="a whole number",
        example="ceil(x)",
        backends=Backends(
            np.ceil, enclosure.ceiling, ball_functions.ceiling, "ceiling", analytic.ceiling
        ),
        derivative=("0/(u - floor(u))",),
        rough=("sin(pi u)",),
    ),
    FunctionEntry(
        name="round",
        group=Group.STEPS,
        arguments=(
            Argument("x", "a number"),
            Argument("n", "how many decimal places; none if it is left out", is_optional=True),
        ),
        meaning="the nearest number with n decimal places; halves are rounded away from zero",
        defined=_EVERYWHERE,
        returns="a number",
        example="round(x, 2)",
        expansion={1: "sign(u) floor(abs(u) + 1/2)", 2: "sign(u) floor(abs(u) 10^v + 1/2)/10^v"},
    ),
    FunctionEntry(
        name="mod",
        units=ALIKE,
        group=Group.STEPS,
        arguments=(Argument("x", "a number"), Argument("y", "by what it is divided")),
        meaning="what a division of x by y leaves: x − y floor(x/y)",
        defined="for y ≠ 0",
        returns="a number from 0 to y, without y",
        example="mod(x, 3)",
        expansion={2: "u - v floor(u/v)"},
    ),
    FunctionEntry(
        name="min",
        units=ALIKE,
        group=Group.STEPS,
        arguments=_TWO,
        meaning="the smallest of two or more numbers",
        defined=_EVERYWHERE,
        returns="a number",
        example="min(x, 2)",
        backends=Backends(
            np.minimum, enclosure.minimum, ball_functions.minimum, "Min", analytic.minimum
        ),
        derivative=("(1 - sign(u - v))/2 + 0/(u - v)", "(1 + sign(u - v))/2 + 0/(u - v)"),
        repeats=True,
        arrays=of_list("min", ordering.least, large.least),
        rough=("u - v",),
    ),
    FunctionEntry(
        name="max",
        units=ALIKE,
        group=Group.STEPS,
        arguments=_TWO,
        meaning="the greatest of two or more numbers",
        defined=_EVERYWHERE,
        returns="a number",
        example="max(x, 0)",
        backends=Backends(
            np.maximum, enclosure.maximum, ball_functions.maximum, "Max", analytic.maximum
        ),
        derivative=("(1 + sign(u - v))/2 + 0/(u - v)", "(1 - sign(u - v))/2 + 0/(u - v)"),
        repeats=True,
        arrays=of_list("max", ordering.greatest, large.greatest),
        rough=("u - v",),
    ),
)
