"""Read the conditions after ``for``: between which values a variable lies."""

from __future__ import annotations

from axis_path.core.errors import DomainError
from axis_path.core.language import messages
from axis_path.core.language.parsing.body import Condition
from axis_path.core.language.tree import Bound, Domain, Name, Node
from axis_path.core.language.walk import is_infinite, names_in


def read_domains(
    conditions: tuple[Condition, ...], variables: tuple[str, ...]
) -> tuple[Domain, ...]:
    """Return the domain of each variable.

    Raises:
        DomainError: a condition that is about no variable, or about two at once.
    """
    if len(variables) == 1:
        return (read_domain(conditions, variables[0]),)
    own: dict[str, list[Condition]] = {name: [] for name in variables}
    for condition in conditions:
        about = [
            term.name for term in condition.terms if isinstance(term, Name) and term.name in own
        ]
        if len(about) != 1:
            names = " or ".join(f"`{name}`" for name in variables)
            raise DomainError(
                messages.EACH_CONDITION_MUST_GIVE(names=names), position=condition.span
            )
        own[about[0]].append(condition)
    return tuple(read_domain(tuple(own[name]), name) for name in variables)


def read_domain(conditions: tuple[Condition, ...], variable: str) -> Domain:
    """Return where a variable lies by its conditions.

    Raises:
        DomainError: two lower or upper ends, or a condition that does not compare the variable.
    """
    low: Bound | None = None
    high: Bound | None = None
    without: list[Node] = []
    for condition in conditions:
        for sign, value in _pairs(condition, variable):
            if sign == "!=":
                without.append(value)
            elif sign == "=":
                raise DomainError(messages.DOMAIN_NEEDS_ONE_2, position=condition.span)
            elif sign in ("<", "<="):
                if high is not None:
                    raise _twice(messages.TWO_UPPER_ENDS, condition)
                high = Bound(value, closed=sign == "<=")
            else:
                if low is not None:
                    raise _twice(messages.TWO_LOWER_ENDS, condition)
                low = Bound(value, closed=sign == ">=")
    return Domain(_finite(low), _finite(high), tuple(without))


def _finite(bound: Bound | None) -> Bound | None:
    return None if bound is None or is_infinite(bound.value) else bound


def _twice(message: str, condition: Condition) -> DomainError:
    return DomainError(message, position=condition.span)


_MIRRORED = {"<": ">", "<=": ">=", ">": "<", ">=": "<=", "!=": "!=", "=": "="}


def _pairs(condition: Condition, variable: str) -> list[tuple[str, Node]]:
    """Return a condition as comparisons of the variable, on the left, with a value."""
    terms, signs = condition.terms, condition.signs
    middle = terms[1] if len(terms) == 3 else terms[0]
    if len(terms) == 2 and not _is_variable(middle, variable):
        pairs = [(_MIRRORED[signs[0]], terms[0])]
        middle = terms[1]
    elif len(terms) == 2:
        pairs = [(signs[0], terms[1])]
    else:
        if signs[0][0] != signs[1][0] or signs[0][0] in "!=":
            raise DomainError(
                messages.BOTH_SIGNS_DOMAIN_MUST,
                position=condition.span,
            )
        pairs = [(_MIRRORED[signs[0]], terms[0]), (signs[1], terms[2])]
    values = [value for _, value in pairs]
    if not _is_variable(middle, variable) or any(variable in names_in(v) for v in values):
        raise DomainError(
            messages.DOMAIN_MUST_SAY_WHICH(variable=variable),
            position=condition.span,
        )
    return pairs


def _is_variable(node: Node, variable: str) -> bool:
    return isinstance(node, Name) and node.name == variable
