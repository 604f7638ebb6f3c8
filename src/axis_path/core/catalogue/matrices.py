"""Functions of matrices and vectors."""

from fractions import Fraction

from axis_path.core.arithmetic.arrays import (
    combine,
    eigenvalues,
    elimination,
    field_elimination,
    large,
    large_forms,
)
from axis_path.core.catalogue.entry import Argument, Arrays, FunctionEntry, Group, ValueKind
from axis_path.core.catalogue.unit_rules import ALIKE, COUNTS, KEEPS, MULTIPLIES, UnitRule
from axis_path.core.limits import EIGEN_SIDE

NUMBER, LIST, MATRIX = ValueKind.NUMBER, ValueKind.LIST, ValueKind.MATRIX
_MATRIX = (Argument("A", "a matrix"),)
_SQUARE = (Argument("A", "a square matrix"),)
_TWO = (Argument("A", "a matrix, or a list as a column"), Argument("B", "another"))
_VECTORS = (Argument("u", "a list"), Argument("v", "a list"))
_EVERY = "for every matrix"
_EVERY_SQUARE = "for every square matrix"


def _like_first(kinds: list[ValueKind]) -> ValueKind:
    return kinds[0] if kinds else NUMBER


def _like_second(kinds: list[ValueKind]) -> ValueKind:
    return kinds[1] if len(kinds) > 1 else LIST


def _stacked(kinds: list[ValueKind]) -> ValueKind:
    return LIST if kinds == [LIST, LIST] else MATRIX


MATRICES = (
    FunctionEntry(
        name="hadamard",
        units=MULTIPLIES,
        group=Group.MATRICES,
        arguments=_TWO,
        meaning="the product entry by entry; also written A ∘ B",
        defined="for two of the same shape",
        returns="the same shape",
        example="hadamard([[1, 2], [3, 4]], [[5, 6], [7, 8]])",
        arrays=Arrays(
            _like_first,
            ("array", "array"),
            lambda field, a, b: combine.entry_by_entry(
                field.multiply, a, b, "The product entry by entry"
            ),
            large=large.hadamard,
        ),
    ),
    FunctionEntry(
        name="det",
        group=Group.MATRICES,
        arguments=_SQUARE,
        meaning="the determinant; also written |A|",
        defined=_EVERY_SQUARE,
        returns="a number",
        example="det([[1, 2], [3, 4]])",
        arrays=Arrays(
            NUMBER,
            ("matrix",),
            lambda field, a: combine.determinant_by_minors(a, field),
            elimination.determinant,
            large.determinant,
        ),
    ),
    FunctionEntry(
        name="trace",
        units=KEEPS,
        group=Group.MATRICES,
        arguments=_SQUARE,
        meaning="the sum of the diagonal",
        defined=_EVERY_SQUARE,
        returns="a number",
        example="trace([[1, 2], [3, 4]])",
        arrays=Arrays(NUMBER, ("matrix",), lambda field, a: combine.trace(a, field)),
    ),
    FunctionEntry(
        name="rank",
        units=COUNTS,
        group=Group.MATRICES,
        arguments=_MATRIX,
        meaning="how many rows are independent of one another",
        defined=_EVERY,
        returns="a whole number",
        example="rank([[1, 2], [2, 4]])",
        arrays=Arrays(
            NUMBER, ("matrix",), field_elimination.rank, elimination.rank, large_forms.rank
        ),
    ),
    FunctionEntry(
        name="rref",
        units=COUNTS,
        group=Group.MATRICES,
        arguments=_MATRIX,
        meaning="the reduced row echelon form",
        defined=_EVERY,
        returns="a matrix of the same shape",
        example="rref([[1, 2, 3], [4, 5, 6]])",
        arrays=Arrays(
            MATRIX,
            ("matrix",),
            field_elimination.reduced_form,
            elimination.reduced_form,
            large_forms.reduced_form,
        ),
    ),
    FunctionEntry(
        name="solve",
        units=UnitRule((Fraction(-1), Fraction(1))),
        group=Group.MATRICES,
        arguments=(Argument("A", "a matrix"), Argument("b", "a list, or a matrix of columns")),
        meaning="the only x with A x = b",
        defined="if there is exactly one",
        returns="a list, or a matrix of columns",
        example="solve([[2, 1], [1, 3]], [3, 5])",
        arrays=Arrays(
            _like_second,
            ("matrix", "array"),
            field_elimination.solution,
            proving=elimination.solution,
            large=large.solution,
        ),
    ),
    FunctionEntry(
        name="null_space",
        units=COUNTS,
        group=Group.MATRICES,
        arguments=_MATRIX,
        meaning="a basis of all x with A x = 0, as columns",
        defined=_EVERY,
        returns="a matrix; one column of 0 if only 0 is there",
        example="null_space([[1, 2], [2, 4]])",
        arrays=Arrays(
            MATRIX,
            ("matrix",),
            field_elimination.null_space,
            elimination.null_space,
            large_forms.null_space,
        ),
    ),
    FunctionEntry(
        name="eigenvalues",
        units=KEEPS,
        group=Group.MATRICES,
        arguments=_SQUARE,
        meaning="all λ with A v = λ v for some v that is not 0; repeated ones several times",
        defined=_EVERY_SQUARE,
        returns="a list, by their real parts",
        example="eigenvalues([[2, 1], [1, 2]])",
        arrays=Arrays(
            LIST,
            ("matrix",),
            eigenvalues.in_field,
            eigenvalues.eigenvalues,
            large_forms.eigenvalues,
            EIGEN_SIDE.value,
        ),
    ),
    FunctionEntry(
        name="eigenvectors",
        units=COUNTS,
        group=Group.MATRICES,
        arguments=_SQUARE,
        meaning="independent eigenvectors as columns, in the order of the eigenvalues",
        defined=_EVERY_SQUARE,
        returns=(
            "a matrix; with fewer columns than rows if there are too few. Of more than "
            f"{EIGEN_SIDE.value} rows the columns have the length 1"
        ),
        example="eigenvectors([[2, 1], [1, 2]])",
        arrays=Arrays(
            MATRIX,
            ("matrix",),
            eigenvalues.vectors_in_field,
            eigenvalues.eigenvectors,
            large_forms.eigenvectors,
            EIGEN_SIDE.value,
        ),
    ),
    FunctionEntry(
        name="norm",
        units=KEEPS,
        group=Group.MATRICES,
        arguments=(Argument("v", "a list, or a matrix"),),
        meaning="the length of a vector: the root of the sum of all squares",
        defined="for every list and matrix",
        returns="a number ≥ 0",
        example="norm([3, 4])",
        arrays=Arrays(
            NUMBER, ("array",), lambda field, a: combine.norm(a, field), large=large.norm
        ),
    ),
    FunctionEntry(
        name="dot",
        units=MULTIPLIES,
        group=Group.MATRICES,
        arguments=_VECTORS,
        meaning="the dot product of two vectors",
        defined="for two lists of one length",
        returns="a number",
        example="dot([1, 2, 3], [4, 5, 6])",
        arrays=Arrays(
            NUMBER, ("list", "list"), lambda field, a, b: combine.dot(a, b, field), large=large.dot
        ),
    ),
    FunctionEntry(
        name="cross",
        units=MULTIPLIES,
        group=Group.MATRICES,
        arguments=_VECTORS,
        meaning="the cross product of two vectors in space",
        defined="for two lists of 3",
        returns="a list of 3",
        example="cross([1, 0, 0], [0, 1, 0])",
        arrays=Arrays(LIST, ("list", "list"), lambda field, a, b: combine.cross(a, b, field)),
    ),
    FunctionEntry(
        name="rows",
        units=COUNTS,
        group=Group.MATRICES,
        arguments=_MATRIX,
        meaning="how many rows there are; a list is a column",
        defined="for every matrix and list",
        returns="a whole number",
        example="rows([[1, 2, 3], [4, 5, 6]])",
        arrays=Arrays(NUMBER, ("any array",), lambda field, a: field.number(a.row_count)),
    ),
    FunctionEntry(
        name="columns",
        units=COUNTS,
        group=Group.MATRICES,
        arguments=_MATRIX,
        meaning="how many columns there are; a list is a column",
        defined="for every matrix and list",
        returns="a whole number",
        example="columns([[1, 2, 3], [4, 5, 6]])",
        arrays=Arrays(NUMBER, ("any array",), lambda field, a: field.number(a.column_count)),
    ),
    FunctionEntry(
        name="identity",
        group=Group.MATRICES,
        arguments=(Argument("n", "how many rows and columns"),),
        meaning="the identity matrix",
        defined="for whole n ≥ 1",
        returns="an n by n matrix",
        example="identity(3)",
        arrays=Arrays(MATRIX, ("count",), lambda field, n: combine.identity(n, field)),
    ),
    FunctionEntry(
        name="beside",
        units=ALIKE,
        group=Group.MATRICES,
        arguments=_TWO,
        meaning="two matrices joined side by side",
        defined="for as many rows in both; a list is a column",
        returns="a matrix",
        example="beside([[1, 2], [3, 4]], [5, 6])",
        arrays=Arrays(MATRIX, ("array", "array"), lambda field, a, b: combine.beside(a, b)),
    ),
    FunctionEntry(
        name="above",
        units=ALIKE,
        group=Group.MATRICES,
        arguments=_TWO,
        meaning="one matrix put above another; a list is a row then, and two lists make one",
        defined="for as many columns in both",
        returns="a matrix, or a list",
        example="above([[1, 2], [3, 4]], [5, 6])",
        arrays=Arrays(_stacked, ("array", "array"), lambda field, a, b: combine.above(a, b)),
    ),
)
