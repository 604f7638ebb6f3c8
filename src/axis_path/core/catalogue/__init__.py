"""Every function and constant ONCE: what it is called, what it means, how it is computed.

The language asks here what a name is, the backends how to compute it, the Reference what to say
of it. Nothing here knows of text or trees. Read ``entry.py``, then any entry of ``powers.py``.
"""

from axis_path.core.catalogue import (
    complex_numbers,
    hyperbolic,
    lists,
    matrices,
    plane,
    powers,
    random,
    steps,
    trigonometry,
    whole,
    wholes,
)
from axis_path.core.catalogue.constants import CONSTANTS, DEGREE, SUMMARY_ENTRIES
from axis_path.core.catalogue.entry import (
    Argument,
    Arrays,
    Backends,
    ConstantEntry,
    FunctionEntry,
    Group,
    Parity,
    SummaryEntry,
    ValueKind,
)

__all__ = [
    "CONSTANTS",
    "DEGREE",
    "FUNCTIONS",
    "OPERATIONS",
    "SPELLINGS",
    "SUMMARY_ENTRIES",
    "Argument",
    "Arrays",
    "Backends",
    "ConstantEntry",
    "FunctionEntry",
    "Group",
    "Parity",
    "SummaryEntry",
    "ValueKind",
]

FUNCTIONS: dict[str, FunctionEntry] = {
    entry.name: entry
    for entry in (
        *powers.POWERS,
        *powers.LOGARITHMS,
        *trigonometry.TRIGONOMETRY,
        *hyperbolic.HYPERBOLIC,
        *steps.STEPS,
        *whole.WHOLE,
        *whole.SPECIAL,
        *plane.PLANE,
        *wholes.NUMBERS,
        *lists.LISTS,
        *matrices.MATRICES,
        *random.RANDOM,
        *complex_numbers.COMPLEX,
    )
}

#: The functions that are operations of their own in each arithmetic.
OPERATIONS: dict[str, Backends] = {
    name: entry.backends for name, entry in FUNCTIONS.items() if entry.backends is not None
}

#: Other spellings of functions and constants, by what they mean.
SPELLINGS: dict[str, str] = {
    **{other: entry.name for entry in FUNCTIONS.values() for other in entry.spellings},
    **{other: entry.name for entry in CONSTANTS.values() for other in entry.spellings},
}
