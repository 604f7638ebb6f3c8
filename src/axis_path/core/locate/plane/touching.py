"""Settle the small boxes in which two equations, or two paths, may touch."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from flint import arb, fmpq

from axis_path.core.evaluate import RealFunction, RealPath, RealSurface
from axis_path.core.locate.algebra.contact import Contact, contact, difference, polynomial_of
from axis_path.core.locate.algebra.rational import Quotient, as_quotient
from axis_path.core.locate.algebra.turning import half_angle_quotients
from axis_path.core.locate.cells import float_above, float_below
from axis_path.core.locate.plane.search import Solution

#: A box is looked at with so much room around it, relative to its place.
_ROOM = 1e-9


def touching_equations(one: RealSurface, other: RealSurface, box: Solution) -> Solution | bool:
    """Settle a box in which two polynomial equations may touch; see ``contact``."""
    polynomials = polynomial_of(one), polynomial_of(other)
    if polynomials[0] is None or polynomials[1] is None:
        return True
    contact_point = contact(polynomials[0], polynomials[1], (_ball(box.x), _ball(box.y)))
    return (
        _solution(contact_point, lambda x: x, lambda y: y)
        if isinstance(contact_point, Contact)
        else contact_point
    )


def touching_paths(one: RealPath, other: RealPath, box: Solution) -> Solution | bool:
    """Settle a box of two parameters in which two paths may touch.

    Args:
        one: a path whose coordinates are quotients of polynomials, or made of waves.
        other: another; both may be the same.
        box: of the parameters.
    """
    first, second = _parametrized(one, box.x), _parametrized(other, box.y)
    if first is None or second is None:
        return True
    equations = [difference(a, b) for a, b in zip(first.point, second.point, strict=True)]
    balls = first.inward(_ball(box.x)), second.inward(_ball(box.y))
    if not all(ball.is_finite() for ball in balls):
        return True
    contact_point = contact(equations[0], equations[1], balls)
    return (
        _solution(contact_point, first.outward, second.outward)
        if isinstance(contact_point, Contact)
        else contact_point
    )


def _ball(ends: tuple[float, float]) -> arb:
    room = _ROOM * max(1.0, abs(ends[0]), abs(ends[1]))
    return arb(ends[0] - room).union(arb(ends[1] + room))


def _solution(
    touching: Contact, across: Callable[[arb], arb], up: Callable[[arb], arb]
) -> Solution:
    x, y = across(touching.x), up(touching.y)
    sides = [
        (float_below(coordinate.lower()), float_above(coordinate.upper())) for coordinate in (x, y)
    ]
    return Solution(sides[0], sides[1], proved=True, multiplicity=touching.multiplicity)


@dataclass(frozen=True, slots=True)
class _Parametrized:
    """A path as quotients of polynomials in a parameter of its own.

    Attributes:
        point: both coordinates.
        inward: makes that parameter of the path's; ``outward`` the other way.
    """

    point: tuple[Quotient, Quotient]
    inward: Callable[[arb], arb]
    outward: Callable[[arb], arb]


def _parametrized(path: RealPath, around: tuple[float, float]) -> _Parametrized | None:
    x, y = path.x, path.y
    plain = [as_quotient(coordinate, coordinate.expression) for coordinate in (x, y)]
    if plain[0] is not None and plain[1] is not None:
        return _Parametrized((plain[0], plain[1]), lambda t: t, lambda t: t)
    return _in_half_angles(x, y, (around[0] + around[1]) / 2)


def _in_half_angles(x: RealFunction, y: RealFunction, middle: float) -> _Parametrized | None:
    quotient = half_angle_quotients((x, y), middle)
    if quotient is None:
        return None
    quotients, base, quarters = quotient
    start = arb.pi() * arb(fmpq(quarters, 2))
    return _Parametrized(
        (quotients[0], quotients[1]),
        lambda t: ((base * t - start) / 2).tan(),
        lambda u: (2 * u.atan() + start) / base,
    )
