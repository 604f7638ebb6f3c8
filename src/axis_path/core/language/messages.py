"""Messages about lines as they are typed."""

from axis_path.core.wording import Text

WRITE_LIST_EQUAL_STEPS = Text(
    "Write a list with equal steps as `from 1 to 10 step 0.5` or `from 1 to 10 in 19 points`."
)
OTHERWISE_COMES_LAST = Text(
    "`otherwise` comes last in a function in pieces, as in `x for x < 0; 5 otherwise`."
)
EACH_PIECE_NEEDS_DOMAIN = Text("Each piece needs a domain, as in `x for x < 0; 5 otherwise`.")
SOMETHING_MISSING_BEFORE_COMMA = Text("Something is missing before the comma.")
POINT_HAS_TWO_COORDINATES = Text("A point has two coordinates, as in `(2, 3)`.")
UNEXPECTED_COMMA_WRITE_POINT = Text(
    "Unexpected comma. Write a point in brackets, as in `(2, 3)`, and a domain after `for`."
)
WRITE_DOMAIN = Text("Write a domain with <, ≤, > or ≥, as in `for 0 <= x <= 2`.")
FUNCTION_POWER_NEEDS_VALUE = Text(
    "A function with a power needs a value after it, as in `sin^2 x`."
)
DOMAIN_NEEDS_ONE = Text("A domain needs one of <, ≤, >, ≥ or ≠, as in `for 0 <= x < 3`.")
WRITE_DOMAIN_AFTER = Text("Write a domain after `for`, as in `for 0 <= x < 3`.")
YOU_CANNOT_COMPARE_INSIDE = Text("You cannot compare inside an expression.")
BRACKETS_EMPTY = Text("The brackets are empty.")
SOMETHING_MISSING_AT_END = Text("Something is missing at the end.")
EACH_CONDITION_MUST_GIVE = Text("Each condition must give the values of {names}.")
DOMAIN_NEEDS_ONE_2 = Text("A domain needs one of <, ≤, >, ≥ or ≠.")
BOTH_SIGNS_DOMAIN_MUST = Text("Both signs of a domain must point the same way, as in `0 <= x < 3`.")
DOMAIN_MUST_SAY_WHICH = Text("The domain must say which values `{variable}` can have.")
READ_WHOLE_IF_YOU = Text("This is read as {whole}. If you mean the other, write {parted}.")
DIVISION_OUTSIDE_NAME_INSIDE = Text("The division is outside: {name}({inside}) is divided.")
READ_PARTED_IF_YOU = Text("This is read as {parted}. If you mean the other, write {whole}.")
LINE_HAS_LENGTH_CHARACTERS = Text("The line has {length:,} characters. The limit is {most:,}.")
WRITE_DERIVATIVE_PRIME_AFTER = Text("Write a derivative with ′ after the function, as in `f'(x)`.")
WRITE_POINT_COMMA = Text("Write a point with `=` and a comma.")
USE_WRITTEN = Text("Use {written}")
SET_CAN_HAVE_UP = Text("A set can have up to {most} equations.")
NAME_ALREADY_HAS_MEANING = Text("`{name}` already has a meaning. Choose another name.")
NAME_CANNOT_BOTH_FUNCTION = Text("`{name}` cannot be both the function and its variable.")
TWO_VARIABLES_HAVE_SAME = Text("Two variables have the same name.")
FUNCTION_HAS_ONE_VALUE = Text("A function has one value, but this is an equation or an inequality.")
ONLY_FUNCTION_ONE_VARIABLE = Text("Only a function of one variable can have pieces.")
OTHERWISE_MUST_BE_LAST = Text("`otherwise` must be in the last piece.")
NOT_A_FUNCTION_OF_X = Text(
    "This has x and y, so it is not a function of x. Write an equation, or begin with `f(x, y) =`."
)
WRITE_F_OF_X_AND_Y = Text("Write f(x, y) =")
COLON_NAMES_EQUATION_INEQUALITY = Text(
    "A colon names an equation or an inequality. For a value, write `{name} = …`."
)
WRITE_NAME = Text("Write {name} =")
EQUATION_HAS_NO_DRAWABLE = Text("An equation with ≠ has no drawable region.")
BOTH_SIGNS_MUST_POINT = Text("Both signs must point the same way, as in `1 < x^2 + y^2 <= 9`.")
EQUATION_HAS_ONLY_ONE = Text("An equation has only one `=`.")
DRAW_EQUATION_INEQUALITY_USE = Text("To draw an equation or an inequality, use x or y in it.")
VALUE_HAS_NO_DOMAIN = Text(
    "A value has no domain, but a function has, as in `f(x) = x^2 for x > 0`."
)
INFINITY_CAN_ONLY_BE_AN_END = Text("∞ can only be an end of a domain or of an integral.")
YOU_CANNOT_USE_INTEGRAL = Text(
    "You cannot use an integral to infinity inside a function. Define it as a number, as in `A "
    "= integral(1/x^2, x, 1, inf)`."
)
LOGARITHM_BASE_TAKES_ONE = Text("A logarithm with a base takes one value.")
WRITE_POWER_FUNCTION_OUTSIDE = Text("Write the power of `{function}` outside the brackets.")
FUNCTION_NEEDS_VALUE_AFTER = Text("A function needs a value after it, as in `f(2)`.")
INVERSE_FUNCTION_HAS_NO = Text(
    "The inverse of `{function}` has no name here. Write the power outside the brackets."
)
NAME_NEEDS_EXPRESSION_RANGE = Text(
    "`{name}` needs an expression, and a range for each variable, as in `{example}`."
)
SECOND_PART_NAME_MUST = Text(
    "The second part of `{name}` must be its variable, a letter, as in `{example}`."
)
ROWS_COLUMNS_NEED_DIFFERENT = Text("Rows and columns need different variables.")
NAME_NOT_FUNCTION_HERE = Text(
    "`{name}` is not a function here. To integrate an expression, name its variable, as in "
    "`{example}`."
)
NAME_NEEDS_EXPRESSION_VARIABLE = Text(
    "`{name}` needs an expression, its variable and two ends, as in `{example}`."
)
TYPED_NOT_UNIT = Text("{typed} is not a unit")
DERIVATIVE_TAKES_ONE_VALUE = Text("A derivative takes one value, but this has {count}.")
WRITE_SOMETHING_HERE_FIRST = Text("Write something here first.")
VALUE_NEEDED_NOT_EQUATION = Text(
    "This is an equation or an inequality, but a value is needed here."
)
DOMAIN_DOES_NOT_FIT = Text("A domain does not fit here.")
MORE_THAN_MOST_OPERATIONS = Text("More than {most} operations are nested inside one another.")
WRITE_PRIME_AFTER_NAME = Text("Write ′ after the name of a function, as in `f'(2)`.")
NAME_NOT_FUNCTION_HERE_SO = Text("`{name}` is not a function here, so it has no derivative.")
NAME_NEEDS_VALUE_BRACKETS = Text("`{name}` needs a value in brackets, as in `{name}(2)`.")
WRITE_NAME_OF_X = Text("Write {name}(x)")
DERIVATIVE_ORDER_TOO_HIGH = Text("A derivative of order {order} is too high. The limit is {most}.")
RING_MULTIPLIES_ENTRIES = Text(
    "∘ multiplies matrices entry by entry. To put one function into another, write `f(g(x))`."
)
NAME_NEEDS_VALUE_AFTER = Text("`{name}` needs a value after it, as in `{name}(2)`.")
NAME_NEEDS_BRACKETS_EXAMPLE = Text("`{name}` needs brackets, as in `{example}`.")
TWO_NUMBERS_SIDE_BY_SIDE = Text("Two numbers stand side by side. A sign is missing between them.")
PUT_TIMES_BETWEEN_THEM = Text("Put × between them")
PERCENT_MEANS_HUNDREDTHS = Text(
    "% after a number means hundredths. For a remainder, write `mod(7, 3)`."
)
PIECES_ONE_AFTER_OTHER = Text(
    "pieces one after the other, as in `x for x < 0; 5 otherwise`, or a list in `[1, 2]`"
)
COMPARISON_SIGNS = Text("signs, as in `for 0 <= x <= 2`")
INSTEAD_SIGN_WRITE_WRITTEN = Text("Instead of {sign}, write {written}.")
WRITE_FRACTION_SIGN_SLASH = Text("Write the fraction {sign} with a slash.")
SIGN_OF_ANOTHER_ALPHABET = Text(
    "This `{sign}` comes from another alphabet or font. It only looks like `{plain}`."
)
SIGN_CANNOT_BE_USED = Text("{sign} cannot be used here.")
WRITE_FOR_INSTEAD_OF_IF = Text("Write a domain after `for`, as in `x^2 for x > 0`.")
POWER_TEN_BEYOND_MOST = Text("The power of ten is beyond {most:,}.")
MORE_THAN_MOST_BRACKETS = Text("More than {most} brackets are nested inside one another.")
WRITE_UNIT_AFTER = Text("Write a unit after `in`, as in `v in km/h`.")
UNIT_NOT_UNIT_DID = Text("`{unit}` is not a unit. Did you mean `{near}`?")
UNIT_NOT_UNIT = Text("`{unit}` is not a unit.")
TEXT_NOT_EQUATION_EACH = Text("`{text}` is not an equation. Each equation of a set needs one `=`.")
NAME_UNKNOWN_DID_YOU = Text("`{name}` is unknown. Did you mean `{near}`?")
NAME_UNKNOWN_WRITE_MEANT = Text("`{name}` is unknown. Write {meant}.")
NAME_UNKNOWN_DO_YOU = Text("`{name}` is unknown. Do you mean the product `{product}`?")
NAME_UNKNOWN = Text("`{name}` is unknown.")
OR = Text("`det(A)` or `|A|`")
INSIDE_SQUARE_BRACKETS = Text("inside square brackets, as in `L[last]`")
INSIDE_SQUARE_BRACKETS_2 = Text("inside square brackets, as in `A[1, all]`")
SOMETHING_MISSING_AFTER = Text("Something is missing after `{before}`.")
SOMETHING_MISSING_BEFORE = Text("Something is missing before `{bad}`.")
DOES_NOT_FIT = Text("`{bad}` does not fit here.")
TWO_LOWER_ENDS = Text("The domain has two lower ends. Keep only one of them.")
TWO_UPPER_ENDS = Text("The domain has two upper ends. Keep only one of them.")
BRACKET_NOT_OPENED = Text("This closing bracket has no opening bracket before it.")
REMOVE_BRACKET = Text("Remove the bracket")
BRACKET_NOT_CLOSED = Text("A closing bracket is missing.")
CLOSE_BRACKET = Text("Close the bracket")
SQUARE_BRACKET_NOT_OPENED = Text(
    "This closing square bracket has no opening square bracket before it."
)
REMOVE_SQUARE_BRACKET = Text("Remove the square bracket")
SQUARE_BRACKET_NOT_CLOSED = Text("A closing square bracket is missing.")
CLOSE_SQUARE_BRACKET = Text("Close the square bracket")
BAR_NOT_OPENED = Text("This closing bar has no opening bar before it.")
REMOVE_BAR = Text("Remove the bar")
BAR_NOT_CLOSED = Text("A closing bar is missing.")
CLOSE_BAR = Text("Close the bar")
