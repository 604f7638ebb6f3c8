"""Files that leave the Bench: the table as CSV and as a workbook, pictures, the study itself."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from typing import BinaryIO

import orjson

from axis_path.bench.answer import Answer, FileAnswer
from axis_path.bench.findings import plane_marks
from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import PictureQuery, TableFileQuery
from axis_path.bench.tables import Cell, csv_blocks, table_rows, workbook
from axis_path.core.features.what_if.drawing import what_if_curves
from axis_path.picture import Format, Look, make_picture

_WORKBOOK = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
_BLOCK_BYTES = 1 << 18


def table_csv(job: Job, query: TableFileQuery) -> FileAnswer:
    """Return the whole table as CSV, sent as it is computed."""
    lines = csv_blocks(_table_rows(job, query))
    # The head is made now, so that what cannot be made is refused and not sent in part.
    head = next(lines)
    return FileAnswer(_encoded(head, lines), "text/csv")


def _encoded(head: str, lines: Iterator[str]) -> Iterator[bytes]:
    yield head.encode()
    for block in lines:
        yield block.encode()


def table_workbook(job: Job, query: TableFileQuery) -> FileAnswer:
    """Return the whole table as a workbook."""
    file = tempfile.TemporaryFile()  # noqa: SIM115 - it is closed when it has been sent
    try:
        workbook(_table_rows(job, query), file)
    except BaseException:
        file.close()
        raise
    file.seek(0)
    return FileAnswer(_read_blocks(file), _WORKBOOK)


def _read_blocks(file: BinaryIO) -> Iterator[bytes]:
    with file:
        while block := file.read(_BLOCK_BYTES):
            yield block


def _table_rows(job: Job, query: TableFileQuery) -> Iterator[list[list[Cell]]]:
    study = realise(job, query).study
    return table_rows(study, with_units=query.units, with_exact=query.exact)


def picture(job: Job, query: PictureQuery) -> Answer:
    """Return the present state as an SVG, a PNG, a PDF, or as a file of the open study format."""
    request = realise(job, query)
    carried = request.study.to_dict() | {
        "title": job.context["title"], "window": request.window.to_dict(),
    }  # fmt: skip
    if query.format == "study":
        return Answer(orjson.dumps(carried, option=orjson.OPT_INDENT_2))
    scene = request.study.scene(
        request.window, reading_x=request.reading_x, with_trails=True
    ).to_dict()
    solved = what_if_curves(request.study.snapshot, request.window, are_solved=True)
    scene |= {"what_if": [*scene["what_if"], *solved]}
    if query.with_findings:
        scene |= {"findings": plane_marks(request)}
    look = Look(query.white, query.with_reading, query.dark)
    made = make_picture(scene, carried, Format(query.format), look, scale=query.scale)
    return Answer(made.data, made.media_type)
