"""Lines of any kind, as they are located and drawn, and the members of families."""

from __future__ import annotations

from fractions import Fraction
from typing import cast

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Curve as SampledCurve
from axis_path.core.draw import Window
from axis_path.core.errors import MathError, UnknownNameError
from axis_path.core.kinds.registry import KINDS
from axis_path.core.lines.family import (
    Drawable,
    Family,
    FamilyError,
    FamilyState,
    Member,
    family_values,
)
from axis_path.core.locate import Curve


class Drawables:
    """The lines of a study that are curves, whatever their kind."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._curves = snapshot.query(Curves)
        self._numbers = snapshot.query(Numbers)
        self._sliders = snapshot.query(Sliders)

    def curve_of(self, name: str) -> Curve:
        """Return a line that is drawn as a curve, in the form in which it is located.

        Raises:
            MathError: it is no curve, or does not work.
        """
        definition = self._snapshot.definition_of(name)
        if definition.problem is not None:
            raise definition.problem
        kind = KINDS[definition.kind]
        return kind.curve(kind.realise(self._curves, definition))

    def sampled(self, name: str, window: Window) -> SampledCurve:
        """Draw a function, a path or a curve by an angle in a window.

        Raises:
            MathError: the name is none of these, or does not work.
        """
        definition = self._snapshot.definition_of(name)
        if definition.problem is not None:
            raise definition.problem
        kind = KINDS[definition.kind]
        return kind.sample(kind.realise(self._curves, definition), window)

    def drawable(self, definition: Definition) -> Drawable:
        """Return a line that can have a family, in the form in which it is drawn."""
        self._snapshot.check_solved(definition.uses)
        return cast("Drawable", KINDS[definition.kind].realise(self._curves, definition))

    def family_of(self, line_id: int) -> FamilyState:
        """Return the family of a line, whether that has a name or not.

        Raises:
            MathError: it has no family that can be; KeyError: there is no such line.
        """
        definition = self._snapshot.definition(line_id)
        if definition.family is None:
            raise UnknownNameError(f"`{definition.name}` is drawn for the present values only.")
        family = self.family(definition, definition.family)
        if family.problem is not None:
            raise family.problem
        return family

    def family(self, definition: Definition, family: Family) -> FamilyState:
        """Return the members of a family, or the problem that it has."""
        name, analysis = "", self._snapshot.analysis
        try:
            name, _, _ = self._sliders.slider_of(family.slider)
            if definition.name is not None and definition.name not in analysis.users(name):
                raise FamilyError(f"`{definition.name}` does not depend on `{name}`.")
            unit = self._snapshot.unit_of_slider(name)
            values = family_values(
                family, lambda text: self._numbers.rational(text, unit), unit.printed
            )
        except KeyError:
            return FamilyState(family, name, (), FamilyError("The slider of this family is gone."))
        except MathError as err:
            return FamilyState(family, name, (), err)
        members = [self._member(definition, name, text, value) for text, value in values]
        return FamilyState(family, name, tuple(members))

    def _member(self, definition: Definition, name: str, text: str, value: Fraction) -> Member:
        other = self._snapshot.with_values({name: value}).query(Drawables)
        try:
            return Member(text, value, other.drawable(definition))
        except MathError as err:
            return Member(text, value, None, err.message)
