"""Every function and constant ONCE: what it is called, what it means, how it is computed.

The language asks here what a name is, the backends how to compute it, the Reference what to say
of it. Nothing here knows of text or trees. Read ``entry.py``, then any entry of ``functions.py``.
"""

import math

from axis_path.core.arithmetic import ball
from axis_path.core.catalogue import functions
from axis_path.core.catalogue.entry import (
    AngleRole,
    Argument,
    Backends,
    ConstantEntry,
    FunctionEntry,
    Group,
)

__all__ = [
    "CONSTANTS",
    "DEGREE",
    "FUNCTIONS",
    "SPELLINGS",
    "AngleRole",
    "Argument",
    "Backends",
    "ConstantEntry",
    "FunctionEntry",
    "Group",
]

FUNCTIONS: dict[str, FunctionEntry] = {
    entry.name: entry
    for entry in (
        *functions.POWERS,
        *functions.LOGARITHMS,
        *functions.TRIGONOMETRY,
        *functions.HYPERBOLIC,
        *functions.STEPS,
    )
}

#: One degree in radians. It has no typed name: it comes from ``°`` and from studies in degrees.
DEGREE = "°"

CONSTANTS: dict[str, ConstantEntry] = {
    entry.name: entry
    for entry in (
        ConstantEntry(
            name="pi",
            spellings=("π",),
            meaning="half a turn in radians, 3.14159…",
            example="2pi",
            low=math.pi,
            high=math.nextafter(math.pi, 4),
            proving=ball.pi,
        ),
        ConstantEntry(
            name="e",
            meaning="the base of the natural logarithm, 2.71828…",
            example="e^x",
            low=math.e,
            high=math.nextafter(math.e, 4),
            proving=ball.euler,
        ),
        ConstantEntry(
            name=DEGREE,
            meaning="one degree in radians",
            example="sin(30°)",
            low=math.nextafter(math.pi / 180, 0),
            high=math.nextafter(math.pi / 180, 1),
            proving=ball.degree,
        ),
    )
}

#: Other spellings of functions and constants, by what they mean.
SPELLINGS: dict[str, str] = {
    **{other: entry.name for entry in FUNCTIONS.values() for other in entry.spellings},
    **{other: entry.name for entry in CONSTANTS.values() for other in entry.spellings},
}
