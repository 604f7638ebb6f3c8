"""Functions of lists: counting, sums, means, order."""

from collections.abc import Callable
from fractions import Fraction
from typing import Any

from axis_path.core.arithmetic.arrays import large, ordering, sums
from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.catalogue.entry import Argument, Arrays, FunctionEntry, Group, ValueKind
from axis_path.core.catalogue.unit_rules import COUNTS, KEEPS, SQUARES, UnitRule

_LIST = (Argument("L", "a list"),)
_TWO_LISTS = (Argument("L", "a list"), Argument("M", "a list of the same length"))
_SPREAD = (
    Argument("L", "a list"),
    Argument("population", "the word, for a whole population", is_optional=True),
)
_OF_NUMBERS = "for a list of numbers"
_POPULATION = ("population",)
NUMBER, LIST = ValueKind.NUMBER, ValueKind.LIST
#: A function of numbers that takes a single list too.
_OF_ONE = frozenset({1})


def _count(field: Any, a: Array[Any]) -> Any:  # noqa: ANN401 - any arithmetic
    return field.number(len(a.entries))


LISTS = (
    FunctionEntry(
        name="count",
        units=COUNTS,
        group=Group.LISTS,
        arguments=(Argument("L", "a list or a matrix"),),
        meaning="how many entries there are",
        defined="for every list and matrix",
        returns="a whole number",
        example="count([1, 4, 9])",
        arrays=Arrays(NUMBER, ("array",), _count),
    ),
    FunctionEntry(
        name="sum",
        units=KEEPS,
        group=Group.LISTS,
        arguments=_LIST,
        meaning="the sum of all entries",
        defined=_OF_NUMBERS,
        returns="a number",
        example="sum([1, 4, 9])",
        arrays=Arrays(NUMBER, ("array",), lambda field, a: sums.total(a, field), large=large.total),
    ),
    FunctionEntry(
        name="product",
        group=Group.LISTS,
        arguments=_LIST,
        meaning="the product of all entries",
        defined=_OF_NUMBERS,
        returns="a number",
        example="product([2, 3, 7])",
        arrays=Arrays(NUMBER, ("array",), lambda field, a: sums.product(a, field)),
    ),
    FunctionEntry(
        name="mean",
        units=KEEPS,
        group=Group.LISTS,
        arguments=_LIST,
        meaning="the mean of all entries",
        defined=_OF_NUMBERS,
        returns="a number",
        example="mean([2, 3, 7])",
        arrays=Arrays(NUMBER, ("array",), lambda field, a: sums.mean(a, field), large=large.mean),
    ),
    FunctionEntry(
        name="median",
        units=KEEPS,
        group=Group.LISTS,
        arguments=_LIST,
        meaning="the middle entry in order of size, or the mean of both middle ones",
        defined="for a list of real numbers",
        returns="a number",
        example="median([7, 2, 3])",
        arrays=Arrays(NUMBER, ("list",), proving=ordering.median),
    ),
    FunctionEntry(
        name="quantile",
        units=UnitRule((Fraction(1),), plain=(1,)),
        group=Group.LISTS,
        arguments=(Argument("L", "a list"), Argument("p", "a part, from 0 to 1")),
        meaning="the value below which a part p of the list lies, interpolated between entries",
        defined="for a list of real numbers and 0 ≤ p ≤ 1",
        returns="a number",
        example="quantile([1, 2, 4, 8], 1/4)",
        arrays=Arrays(NUMBER, ("list", "number"), proving=ordering.quantile),
    ),
    FunctionEntry(
        name="variance",
        units=SQUARES,
        group=Group.LISTS,
        arguments=_SPREAD,
        meaning="the mean square distance from the mean: of a sample, divided by n − 1; "
        "with the word population, divided by n",
        defined="for a list of numbers, of a sample two or more",
        returns="a number ≥ 0",
        example="variance([2, 3, 7])",
        arrays=Arrays(
            NUMBER,
            ("list",),
            lambda field, a, *words: sums.variance(a, field, is_population=bool(words)),
            large=large.variance,
        ),
        options=_POPULATION,
    ),
    FunctionEntry(
        name="sd",
        units=KEEPS,
        group=Group.LISTS,
        arguments=_SPREAD,
        meaning="the standard deviation, the root of the variance: of a sample; "
        "with the word population, σ",
        defined="for a list of numbers, of a sample two or more",
        returns="a number ≥ 0",
        example="sd([2, 3, 7], population)",
        arrays=Arrays(
            NUMBER,
            ("list",),
            lambda field, a, *words: sums.standard_deviation(a, field, is_population=bool(words)),
            large=large.standard_deviation,
        ),
        options=_POPULATION,
    ),
    FunctionEntry(
        name="sort",
        units=KEEPS,
        group=Group.LISTS,
        arguments=_LIST,
        meaning="the same entries from the least to the greatest",
        defined="for a list of real numbers",
        returns="a list",
        example="sort([7, 2, 3])",
        arrays=Arrays(LIST, ("list",), proving=ordering.sort),
    ),
    FunctionEntry(
        name="reverse",
        units=KEEPS,
        group=Group.LISTS,
        arguments=_LIST,
        meaning="the same entries from the last to the first",
        defined="for every list",
        returns="a list",
        example="reverse([1, 4, 9])",
        arrays=Arrays(LIST, ("any list",), lambda field, a: ordering.reverse(a)),
    ),
    FunctionEntry(
        name="cumulative",
        units=KEEPS,
        group=Group.LISTS,
        arguments=_LIST,
        meaning="the running sums: the first entry, the first two, …",
        defined=_OF_NUMBERS,
        returns="a list",
        example="cumulative([1, 4, 9])",
        arrays=Arrays(
            LIST, ("list",), lambda field, a: sums.cumulative(a, field), large=large.cumulative
        ),
    ),
    FunctionEntry(
        name="differences",
        units=KEEPS,
        group=Group.LISTS,
        arguments=_LIST,
        meaning="each entry less the one before it",
        defined="for a list of two numbers or more",
        returns="a list, shorter by one",
        example="differences([1, 4, 9])",
        arrays=Arrays(
            LIST, ("list",), lambda field, a: sums.differences(a, field), large=large.differences
        ),
    ),
    FunctionEntry(
        name="correlation",
        units=COUNTS,
        group=Group.LISTS,
        arguments=_TWO_LISTS,
        meaning="how far two lists lie on one line: the correlation coefficient",
        defined="for two lists of one length, neither of equal entries only",
        returns="a number from −1 to 1",
        example="correlation([1, 2, 4], [2, 3, 7])",
        arrays=Arrays(
            NUMBER,
            ("list", "list"),
            lambda field, a, b: sums.correlation(a, b, field),
            large=large.correlation,
        ),
    ),
)


def of_list(
    name: str,
    proving: Callable[..., object] | None = None,
    large: Callable[..., object] | None = None,
) -> Arrays:
    """Return how a function of two numbers, or more, is computed of a single list."""

    def in_field(field: Any, a: Array[Any]) -> Any:  # noqa: ANN401 - any arithmetic
        return sums.fold(a, lambda one, other: field.call(name, one, other))

    return Arrays(NUMBER, ("array",), in_field, proving, large, counts=_OF_ONE)
