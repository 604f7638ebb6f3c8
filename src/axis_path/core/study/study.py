"""The facade: a study that can be asked and changed, over snapshots that cannot."""

from __future__ import annotations

from collections.abc import Mapping
from fractions import Fraction
from typing import Any, ParamSpec, Self

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.results import Results
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.data import Column
from axis_path.core.document.document import Document
from axis_path.core.draw import Window
from axis_path.core.features.data import edits as data_edits
from axis_path.core.features.data.columns import Columns
from axis_path.core.features.data.fits import Fits
from axis_path.core.features.equations.solving import EquationSets
from axis_path.core.features.findings import Measures, Searches, Solver
from axis_path.core.features.lines import edits as line_edits
from axis_path.core.features.reduction.queries import Reductions
from axis_path.core.features.settings import edits as settings_edits
from axis_path.core.features.sliders import edits as slider_edits
from axis_path.core.features.tables.queries import Tables
from axis_path.core.language.tree import AngleUnit
from axis_path.core.scene.pictures import Pictures
from axis_path.core.study import naming_edits
from axis_path.core.study.commands import apply
from axis_path.core.study.delegates import Edit, asked, edits, of_snapshot
from axis_path.core.study.format import document_from_dict, document_to_dict

P = ParamSpec("P")


class Study:
    """A study: lines, each a definition or a note, and what is asked of them.

    Attributes:
        snapshot: all that is known of it now; ``snapshot.query`` answers what has no method here.
    """

    def __init__(self, angle_unit: str = "radians") -> None:
        """Begin an empty study in ``radians`` or ``degrees``."""
        self.snapshot = Snapshot(Document(AngleUnit(angle_unit)))

    def to_dict(self) -> dict[str, Any]:
        """Return the study in the open study format."""
        return document_to_dict(self.snapshot.document)

    @classmethod
    def from_dict(cls, given: object) -> Self:
        """Read a study from the open study format.

        Raises:
            FormatError: it is no study, or damaged.
        """
        return cls._over(Snapshot(document_from_dict(given)))

    @classmethod
    def _over(cls, snapshot: Snapshot) -> Self:
        study = cls()
        study.snapshot = snapshot
        return study

    def copy(self) -> Self:
        """Return a study of its own with the same lines."""
        return self._over(self.snapshot)

    def at(self, values: Mapping[str, Fraction]) -> Self:
        """Return the study with some sliders at other values, which its lines do not show."""
        return self._over(self.snapshot.with_values(values))

    def apply(self, command: object, window: Window) -> str:
        """Carry out a command; return a few words for the undo button.

        Raises:
            MathError: it cannot be carried out; the study stays as it was.
        """
        change = apply(self.snapshot, command, window)
        self.snapshot = change.snapshot
        return change.label

    def edit(self, change: Edit[P], *args: P.args, **kwargs: P.kwargs) -> None:
        """Go on to what an edit makes of the snapshot; the study stays as it was if that raises."""
        self.snapshot = change(self.snapshot, *args, **kwargs)

    def keep(self, section: object) -> None:
        """Keep another section of a feature, such as ``AxesSpec`` or ``TableSpec``."""
        self.snapshot = self.snapshot.with_section(section)

    def define(self, text: str) -> Definition:
        """Write a line, or write the line of the same name anew.

        A letter that has no value yet, or a name that no other line defines yet, is no error: the
        definition then has a ``problem`` and begins to work when the value is there.

        Raises:
            MathError: the text does not read; the study stays as it was.
        """
        self.snapshot, line_id = line_edits.define(self.snapshot, text)
        return self.snapshot.definition(line_id)

    def remove(self, name: str) -> list[str]:
        """Delete the line that defines a name; return the names of the lines that needed it.

        Raises:
            UnknownNameError: there is none.
        """
        needed_by = self.snapshot.query(Sliders).users(name)
        self.snapshot = naming_edits.remove(self.snapshot, name)
        return needed_by

    def column(self, name: str, values: Any, unit: str = "") -> Column:  # noqa: ANN401
        """Keep a column of data; one of the same name is replaced."""
        self.snapshot = data_edits.keep_column(self.snapshot, name, values, unit)
        return self.column_of(name)

    write = edits(line_edits.write)
    rename = edits(naming_edits.rename)
    set = edits(slider_edits.set_slider)
    set_unit = edits(settings_edits.set_unit)

    names = of_snapshot(Snapshot.names)
    definitions = of_snapshot(Snapshot.definitions)
    number = asked(Numbers, Numbers.number)
    evaluate = asked(Results, Results.evaluate)
    value = asked(Results, Results.value)
    function = asked(Curves, Curves.function)
    path = asked(Curves, Curves.path)
    curve = asked(Pictures, Pictures.curve)
    scene = asked(Pictures, Pictures.scene)
    readings = asked(Pictures, Pictures.readings)
    values = asked(Tables, Tables.values)
    zeros = asked(Searches, Searches.zeros)
    extrema = asked(Searches, Searches.extrema)
    inflections = asked(Searches, Searches.inflections)
    breaks = asked(Searches, Searches.breaks)
    intersections = asked(Searches, Searches.intersections)
    sweep = asked(Searches, Searches.sweep)
    solve = asked(Solver, Solver.solve)
    solve_inequality = asked(Solver, Solver.solve_inequality)
    solve_system = asked(EquationSets, EquationSets.solve_system)
    at_point = asked(Measures, Measures.at_point)
    over_interval = asked(Measures, Measures.over_interval)
    asymptotes = asked(Measures, Measures.asymptotes)
    in_data = asked(Measures, Measures.in_data)
    row_reduction = asked(Reductions, Reductions.row_reduction)
    column_of = asked(Columns, Columns.column_of)
    fit = asked(Fits, Fits.fit)
    summary = asked(Fits, Fits.summary)
