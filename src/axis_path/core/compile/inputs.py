"""What the second and further variables of a function are called in the graph."""

_VARIABLE_INPUT = "variable "
SECOND_OF_PLANE = f"{_VARIABLE_INPUT}y"


def input_name(variable: str) -> str:
    """Return the name under which the graph knows a second or further variable."""
    return _VARIABLE_INPUT + variable
