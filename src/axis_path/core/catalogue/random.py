"""Random numbers, drawn with a seed that is kept with the study."""

from axis_path.core.catalogue.entry import Argument, Arrays, FunctionEntry, Group, ValueKind


def _kind(kinds: list[ValueKind]) -> ValueKind:
    return (ValueKind.NUMBER, ValueKind.LIST, ValueKind.MATRIX)[min(len(kinds), 2)]


RANDOM = (
    FunctionEntry(
        name="random",
        group=Group.LISTS,
        arguments=(
            Argument("m", "how many numbers, or how many rows", is_optional=True),
            Argument("n", "how many columns", is_optional=True),
        ),
        meaning="random numbers from 0 to 1, without 1; the study draws the same until it is told "
        "to draw again",
        defined="in values, not in functions that are plotted",
        returns="a number, a list or a matrix",
        example="random(5)",
        arrays=Arrays(_kind, ("count",)),
    ),
)
