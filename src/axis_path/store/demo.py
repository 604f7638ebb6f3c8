"""The demo studies of Tern Quay, a small invented harbour."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from axis_path.core import Study
from axis_path.core.study import Ask, TableSpec
from axis_path.store.models import StudyRow
from axis_path.store.studies import create_study


@dataclass(frozen=True, slots=True)
class DemoStudy:
    """A study that a new database begins with."""

    title: str
    document: dict[str, Any]
    view: dict[str, Any]


def morning_tide() -> DemoStudy:
    """Tide height over the morning, the depth a ferry needs, and when it can dock."""
    study = Study()
    study.define("# Tern Quay: height of the tide in metres, t in hours after midnight")
    study.define("h(t) = 2.1 + a sin(pi t/6.2) for 0 <= t <= 12.4")
    study.set("a", "1.6", low=0, high=3, step="0.05")
    study.define("# The ferry needs this depth; its margin grows while it takes on cars")
    study.define("g(t) = d + 0.12t")
    study.set("d", "1.3", low=0, high=4, step="0.05")
    study.define("# Above zero the ferry can dock")
    study.define("m(t) = h(t) - g(t)")
    study.set_table(TableSpec("0", "12", "1"))
    line = next(line for line in study.lines if line.text.startswith("m("))
    study.set_asks([Ask(1, line.id, "0", "12.4")])
    view = {"window": {"x": [-1.0, 13.0], "y": [-3.2, 4.6]}, "reading": 4.6, "tab": "findings"}
    return DemoStudy("Morning tide", study.to_dict(), view)


def mooring_line() -> DemoStudy:
    """A hanging rope between two bollards; its slack is a slider."""
    study = Study()
    study.define("# A rope hangs between two bollards 8 m apart, 3 m above the water at low tide")
    study.define("rope(x) = s cosh(x/s) - s cosh(4/s) + 3 for -4 <= x <= 4")
    study.set("s", "4.5", low="1.5", high=12, step="0.1")
    study.define("# The water: where the rope dips below it, it gets wet")
    study.define("water(x) = w")
    study.set("w", "1.4", low=0, high=3, step="0.05")
    study.define("clear(x) = rope(x) - water(x)")
    study.set_table(TableSpec("-4", "4", "1/2"))
    line = next(line for line in study.lines if line.text.startswith("clear("))
    study.set_asks([Ask(1, line.id, "-4", "4")])
    view = {"window": {"x": [-5.5, 5.5], "y": [-1.4, 4.2]}, "reading": 1.5, "tab": "findings"}
    return DemoStudy("Mooring line", study.to_dict(), view)


DEMO = (mooring_line, morning_tide)


def load_demo(session: Session) -> bool:
    """Add the demo studies to a database that never held a study; tell whether it was so."""
    if session.scalar(select(func.count()).select_from(StudyRow)):
        return False
    for make in DEMO:
        demo = make()
        create_study(session, demo.title, demo.document, demo.view)
        # Each in its own moment, so that the list has a fixed order.
        session.commit()
    return True
