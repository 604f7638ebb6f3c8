"""Powers, roots, exponentials and logarithms."""

from fractions import Fraction

import numpy as np

from axis_path.core.arithmetic import analytic, ball, ball_functions, enclosure, floats
from axis_path.core.catalogue.entry import Argument, Backends, FunctionEntry, Group
from axis_path.core.catalogue.unit_rules import UnitRule, power_rule

_NUMBER = (Argument("x", "a number"),)
_EVERYWHERE = "for every number"

POWERS = (
    FunctionEntry(
        name="sqrt",
        units=power_rule(Fraction(1, 2)),
        group=Group.POWERS,
        arguments=_NUMBER,
        meaning="the square root",
        defined="for x ≥ 0",
        returns="a number ≥ 0",
        example="sqrt(x + 4)",
        backends=Backends(
            np.sqrt, enclosure.square_root, ball.square_root, "sqrt", analytic.square_root
        ),
        derivative=("1/sqrt(u)/2",),
        spellings=("√",),
        rough=("u",),
    ),
    FunctionEntry(
        name="cbrt",
        units=power_rule(Fraction(1, 3)),
        group=Group.POWERS,
        arguments=_NUMBER,
        meaning="the cube root, which negative numbers have too",
        defined=_EVERYWHERE,
        returns="a number with the sign of x",
        example="cbrt(-8)",
        expansion={1: "u^(1/3)"},
    ),
    FunctionEntry(
        name="root",
        units=UnitRule((), plain=(1,), root=1),
        group=Group.POWERS,
        arguments=(Argument("x", "a number"), Argument("n", "which root, 2 for the square root")),
        meaning="the nth root; for an odd whole n negative numbers have one too",
        defined="for x ≥ 0, and for x < 0 if n is a fixed odd number",
        returns="a number with the sign of x",
        example="root(x, 5)",
        expansion={2: "u^(1/v)"},
    ),
)

LOGARITHMS = (
    FunctionEntry(
        name="exp",
        group=Group.LOGARITHMS,
        arguments=_NUMBER,
        meaning="e to the power x",
        defined=_EVERYWHERE,
        returns="a number > 0",
        example="exp(-x^2)",
        backends=Backends(
            np.exp, enclosure.exponential, ball_functions.exponential, "exp", analytic.exponential
        ),
        derivative=("exp(u)",),
        inverse="ln",
    ),
    FunctionEntry(
        name="ln",
        group=Group.LOGARITHMS,
        arguments=_NUMBER,
        meaning="the natural logarithm, to base e",
        defined="for x > 0",
        returns="any number",
        example="ln(x + 1)",
        backends=Backends(
            floats.logarithm,
            enclosure.logarithm,
            ball_functions.logarithm,
            "log",
            analytic.logarithm,
        ),
        derivative=("1/u",),
        inverse="exp",
        rough=("u",),
        has_gaps=True,
    ),
    FunctionEntry(
        name="log",
        group=Group.LOGARITHMS,
        arguments=(
            Argument("x", "a number"),
            Argument("b", "the base; 10 if it is left out", is_optional=True),
        ),
        meaning="the logarithm to base 10, or to another base",
        defined="for x > 0; a base is positive and not 1",
        returns="any number",
        example="log(8, 2)",
        expansion={1: "log10(u)", 2: "ln(u)/ln(v)"},
    ),
    FunctionEntry(
        name="log10",
        spellings=("lg",),
        group=Group.LOGARITHMS,
        arguments=_NUMBER,
        meaning="the logarithm to base 10",
        defined="for x > 0",
        returns="any number",
        example="log10(1000)",
        backends=Backends(
            floats.decimal_logarithm,
            enclosure.decimal_logarithm,
            ball_functions.decimal_logarithm,
            "log10",
            analytic.decimal_logarithm,
        ),
        derivative=("1/(u ln(10))",),
        rough=("u",),
        has_gaps=True,
    ),
)
