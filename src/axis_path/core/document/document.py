"""The open study format: a study as plain data, and back.

A document is JSON: ``{"format": "axis-path-study", "version": 1, "angle_unit": …, "lines": […],
"findings": […], "table": …}``. Numbers that must stay exact are texts. ``docs/study-format.md``
describes every field.
"""

from __future__ import annotations

from dataclasses import asdict, dataclass, field
from typing import Any

from axis_path.core.data import Column, number_of_cell
from axis_path.core.document.axes import AxesSpec, axes_from_dict, axes_to_dict
from axis_path.core.document.fit_query import (
    FitAsk,
    Plot,
    fits_from_list,
    fits_to_list,
    plots_from_list,
    plots_to_list,
)
from axis_path.core.document.saved_query import SavedQuery, query_from_dict, query_to_dict
from axis_path.core.errors import FormatError, MathError, SliderError
from axis_path.core.language import NAME_PATTERN
from axis_path.core.language.tree import AngleUnit
from axis_path.core.limits import (
    COLUMN_CELLS,
    COLUMNS,
    FINDINGS,
    LINE_LENGTH,
    LINES,
    STUDY_DIGITS,
    TABLE_DIGITS,
)
from axis_path.core.lines.family import family_from_dict, family_to_dict
from axis_path.core.lines.line import StudyLine
from axis_path.core.lines.moving import (
    Runner,
    runner_from_dict,
    runner_to_dict,
    trail_from_dict,
    trail_to_dict,
)
from axis_path.core.lines.sliders import Slider, literal, slider_from_dict, slider_to_dict
from axis_path.core.lines.style import LineStyle, style_from_dict, style_to_dict
from axis_path.core.tabulate import NumberForm, TableSpec, columns_from_list, columns_to_list

FORMAT, VERSION = "axis-path-study", 1


@dataclass(frozen=True, slots=True)
class Check:
    """Points of a function that are shown over its curve.

    Attributes:
        line: the id of the function's line.
        count: how many evenly spaced points, as typed; empty for a step.
        step: their distance, as typed; empty for a count.
    """

    line: int
    count: str = ""
    step: str = ""


@dataclass(frozen=True, slots=True)
class WorkingLine:
    """A line of the scratch calculator, as typed."""

    id: int
    text: str


#: A new study shows findings with so many digits.
USUAL_DIGITS = 10


@dataclass(frozen=True, slots=True)
class Document:
    """All that is kept of a study."""

    unit: AngleUnit
    lines: tuple[StudyLine, ...] = ()
    asks: tuple[SavedQuery, ...] = ()
    table: TableSpec = field(default_factory=TableSpec)
    working: tuple[WorkingLine, ...] = ()
    axes: AxesSpec = field(default_factory=AxesSpec)
    check: Check | None = None
    columns: tuple[Column, ...] = ()
    fits: tuple[FitAsk, ...] = ()
    plots: tuple[Plot, ...] = ()
    row_filter: str = ""
    digits: int = USUAL_DIGITS


def document_to_dict(document: Document) -> dict[str, Any]:
    """Return a document as plain data for JSON."""
    return {
        "format": FORMAT,
        "version": VERSION,
        "angle_unit": document.unit.value,
        "lines": [_line_to_dict(line) for line in document.lines],
        "findings": [query_to_dict(ask) for ask in document.asks],
        "table": table_to_dict(document.table),
        **({"fits": fits_to_list(document.fits)} if document.fits else {}),
        **({"plots": plots_to_list(document.plots)} if document.plots else {}),
        **({"digits": document.digits} if document.digits != USUAL_DIGITS else {}),
        **({"row_filter": document.row_filter} if document.row_filter else {}),
        **({} if document.check is None else {"check": asdict(document.check)}),
        **({"columns": list(map(_column_to_dict, document.columns))} if document.columns else {}),
        **({} if document.axes == AxesSpec() else {"axes": axes_to_dict(document.axes)}),
        **(
            {"working": [{"id": work.id, "text": work.text} for work in document.working]}
            if document.working
            else {}
        ),
    }


def table_to_dict(table: TableSpec) -> dict[str, Any]:
    """Return what a table is made from as plain data; what is as usual is left out."""
    usual = asdict(TableSpec())
    return {
        name: columns_to_list(table.columns) if name == "columns" else value
        for name, value in asdict(table).items()
        if name in ("start", "stop", "step") or value != usual[name]
    }


def table_from_dict(given: dict[str, Any]) -> TableSpec:
    """Read what a table is made from.

    Raises:
        FormatError: it is of the wrong kind.
    """
    usual = TableSpec()
    texts = {
        name: _field(given, name, str, getattr(usual, name))
        for name in ("start", "stop", "step", "count", "listed", "over", "at")
    }
    digits = _field(given, "digits", int, usual.digits)
    if not 0 <= digits <= TABLE_DIGITS.value:
        raise FormatError(f"A table shows {TABLE_DIGITS.value} digits at most.")
    try:
        form = NumberForm(given.get("form", usual.form))
    except ValueError as err:
        raise FormatError("The numbers of a table are written in a way that is not known.") from err
    columns = columns_from_list(given.get("columns", []))
    return TableSpec(**texts, digits=digits, form=form, columns=columns)


def _column_to_dict(column: Column) -> dict[str, Any]:
    cells = [None if cell is None else str(cell) for cell in column.cells]
    kept: dict[str, Any] = {"name": column.name, "cells": cells}
    if column.unit:
        kept["unit"] = column.unit
    if column.formula:
        kept |= {"cells": [], "formula": column.formula}
    return kept


def _column(given: object) -> Column:
    if not isinstance(given, dict):
        raise FormatError("A column of the study is of the wrong kind.")
    cells = _field(given, "cells", list)
    name = _field(given, "name", str)
    is_text = all(cell is None or isinstance(cell, str) for cell in cells)
    if not is_text or len(cells) > COLUMN_CELLS.value or NAME_PATTERN.fullmatch(name) is None:
        raise FormatError("A column of the study is of the wrong kind.")
    try:
        unit = _field(given, "unit", str, "")[:100]
        formula = _field(given, "formula", str, "")[: LINE_LENGTH.value]
        return Column(name, tuple(map(number_of_cell, cells)), unit, formula)
    except MathError as err:
        raise FormatError(f"A column of the study cannot be: {err.message}") from err


def _line_to_dict(line: StudyLine) -> dict[str, Any]:
    kept: dict[str, Any] = {"id": line.id, "text": line.text}
    if line.hidden:
        kept["hidden"] = True
    if line.aside:
        kept["aside"] = True
    if line.halted:
        kept["halted"] = True
    if line.given is not None:
        kept["given"] = line.given
    if line.tone is not None:
        kept["tone"] = line.tone
    kept |= {
        name: value for name, value in (("fit", line.fit), ("fit_lost", line.fit_lost)) if value
    }
    if line.style != LineStyle():
        kept["style"] = style_to_dict(line.style)
    if line.fixed:
        kept["fixed"] = True
    if line.runner is not None:
        kept["runner"] = runner_to_dict(line.runner)
    if line.trail is not None:
        kept["trail"] = trail_to_dict(line.trail)
    if line.family is not None:
        kept["family"] = family_to_dict(line.family)
    if line.slider is not None:
        kept["slider"] = slider_to_dict(line.slider)
    return kept


def document_from_dict(given: object) -> Document:
    """Read a document.

    Raises:
        FormatError: it is no study, of a later version, or a field is not what it should be.
    """
    if not isinstance(given, dict) or given.get("format") != FORMAT:
        raise FormatError("This is no Axis Path study.")
    version = given.get("version")
    if version != VERSION:
        raise FormatError(
            f"This study has version {version} of the format; version {VERSION} can be read."
        )
    try:
        unit = AngleUnit(_field(given, "angle_unit", str))
    except ValueError as err:
        raise FormatError("The unit of angles is radians or degrees.") from err
    lines = [_line(each) for each in _field(given, "lines", list)]
    if len(lines) > LINES.value:
        raise FormatError(f"A study can have {LINES.value} lines.")
    if len({line.id for line in lines}) != len(lines):
        raise FormatError("Two lines of the study have the same id.")
    asks = [query_from_dict(each) for each in _field(given, "findings", list, [])]
    if len(asks) > FINDINGS.value:
        raise FormatError(f"A study can keep {FINDINGS.value} findings.")
    table = _field(given, "table", dict, {})
    spec = table_from_dict(table)
    working = [_work(each) for each in _field(given, "working", list, [])]
    if len(working) > LINES.value:
        raise FormatError(f"The working of a study can have {LINES.value} lines.")
    axes = axes_from_dict(given.get("axes", {}))
    check = None if given.get("check") is None else _check(_field(given, "check", dict))
    columns = tuple(_column(each) for each in _field(given, "columns", list, []))
    if len(columns) > COLUMNS.value or len({each.name for each in columns}) != len(columns):
        raise FormatError(f"A study has {COLUMNS.value} columns at most, each of its own name.")
    fits, plots = fits_from_list(given.get("fits", [])), plots_from_list(given.get("plots", []))
    digits = _field(given, "digits", int, USUAL_DIGITS)
    if not 2 <= digits <= STUDY_DIGITS.value:
        raise FormatError(f"A study shows 2 to {STUDY_DIGITS.value} digits.")
    row_filter = _field(given, "row_filter", str, "")[: LINE_LENGTH.value]
    return Document(
        unit, tuple(lines), tuple(asks), spec, tuple(working), axes, check, columns, fits, plots,
        row_filter, digits,
    )  # fmt: skip


_MISSING = object()
_LARGEST_INT = 2**53


def _field(given: dict[str, Any], name: str, kind: type, default: object = _MISSING) -> Any:  # noqa: ANN401 - the kind says which
    value = given.get(name, default)
    is_bad = value is _MISSING or not isinstance(value, kind)
    if kind is int and not is_bad:
        # A number beyond these is none that a page, or the database, could give back.
        is_bad = isinstance(value, bool) or not -_LARGEST_INT <= value <= _LARGEST_INT
    if is_bad:
        raise FormatError(f"The field `{name}` of the study is missing or of the wrong kind.")
    return value


def _line(given: object) -> StudyLine:
    if not isinstance(given, dict):
        raise FormatError("A line of the study is of the wrong kind.")
    text = _field(given, "text", str)
    if len(text) > LINE_LENGTH.value:
        raise FormatError(f"A line of the study has more than {LINE_LENGTH.value:,} characters.")
    slider = given.get("slider")
    return StudyLine(
        id=_field(given, "id", int),
        text=text,
        hidden=_field(given, "hidden", bool, False),
        aside=_field(given, "aside", bool, False),
        halted=_field(given, "halted", bool, False),
        given=given["given"][:100] if isinstance(given.get("given"), str) else None,
        fixed=_field(given, "fixed", bool, False),
        slider=_slider(slider) if isinstance(slider, dict) else None,
        tone=None if given.get("tone") is None else _field(given, "tone", int),
        style=style_from_dict(given.get("style", {})),
        runner=None if given.get("runner") is None else _runner(given["runner"]),
        family=None if given.get("family") is None else family_from_dict(given["family"]),
        fit=None if given.get("fit") is None else _field(given, "fit", int),
        fit_lost=_field(given, "fit_lost", bool, False),
        trail=None if given.get("trail") is None else trail_from_dict(given["trail"]),
    )


def _slider(given: dict[str, Any]) -> Slider:
    try:
        slider = slider_from_dict(given)
        known = [literal(text) for text in slider.texts]
        if None not in known:
            # What depends on other lines is looked at when they are all there.
            slider.range(*(each for each in known if each is not None))
        return slider
    except MathError as err:
        raise FormatError(f"A slider of the study cannot be: {err.message}") from err


def _runner(given: object) -> Runner:
    try:
        return runner_from_dict(given)
    except SliderError as err:
        raise FormatError(f"The runner of a path cannot be: {err.message}") from err


def _check(given: dict[str, Any]) -> Check:
    texts = (_field(given, name, str, "")[: LINE_LENGTH.value] for name in ("count", "step"))
    return Check(_field(given, "line", int), *texts)


def _work(given: object) -> WorkingLine:
    if not isinstance(given, dict):
        raise FormatError("A line of the working is of the wrong kind.")
    text = _field(given, "text", str)
    if len(text) > LINE_LENGTH.value:
        raise FormatError(f"A line of the working has more than {LINE_LENGTH.value:,} characters.")
    return WorkingLine(_field(given, "id", int), text)
