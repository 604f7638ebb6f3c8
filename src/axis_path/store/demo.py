"""The demo studies of Tern Quay, a small invented harbour."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from sqlalchemy.orm import Session

from axis_path.core import Study
from axis_path.core.study import Ask, AxesSpec, GridKind, TableSpec
from axis_path.store.studies import create_study, holds_studies


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


def beam_sweep() -> DemoStudy:
    """The beam of the lighthouse as a curve by an angle, and a boat that it catches."""
    study = Study()
    study.define(
        "# The lighthouse stands at the origin; its beam reaches this far, in hundreds of metres"
    )
    study.define("beam(theta) = 3 + k cos(3theta) for 0 <= theta <= 2pi")
    study.set("k", "1.4", low=0, high=3, step="0.05")
    study.define("# The edge of safe water around the rocks, by another angle")
    study.define("rocks(theta) = 1.2 + 0.3 sin(5theta)")
    study.define("# A boat on its way into the harbour, by the time in minutes")
    study.define("boat(t) = (6 - 0.9t, 2.2 - 0.8t + 0.1t^2) for 0 <= t <= 8")
    study.define("now = boat(m)")
    study.set("m", "2.5", low=0, high=8, step="0.1")
    title = "The beam of Tern Quay: `3 + k cos(3theta)`"
    study.set_axes(AxesSpec(grid=GridKind.POLAR, equal=True, title=title))
    view = {"window": {"x": [-6.6, 6.6], "y": [-4.2, 4.2]}, "tab": "findings"}
    return DemoStudy("Beam sweep", study.to_dict(), view)


def breakwater() -> DemoStudy:
    """The harbour wall as an ellipse, the turning basin, and where ships may go."""
    study = Study()
    study.define("# The breakwater of Tern Quay, seen from above, in hundreds of metres")
    study.define("wall: x^2/25 + y^2/9 = 1")
    study.define("# The basin in which a ferry turns")
    study.define("basin: (x - b)^2 + y^2 <= 1.5^2")
    study.set("b", "1", low=-3, high=3, step="0.1")
    study.define("# Ships keep to the seaward side of this line")
    study.define("limit: y > 0.4x - 1.6")
    study.define("# Buoys, and the depth of the water")
    study.define("buoys = [(-3, 1.2), (-1, -2), (2.4, 1.9), (4, -0.6)]")
    study.define("depth(x, y) = 9 - x^2/4 - y^2")
    hidden = next(line for line in study.lines if line.text.startswith("depth("))
    study.mark_line(hidden.id, hidden=True)
    study.set_axes(AxesSpec(grid=GridKind.COARSE, equal=True))
    view = {"window": {"x": [-7.0, 7.0], "y": [-4.5, 4.5]}, "tab": "findings"}
    return DemoStudy("Breakwater", study.to_dict(), view)


DEMO = (breakwater, beam_sweep, mooring_line, morning_tide)


def load_demo(session: Session) -> bool:
    """Add the demo studies to a database that never held a study; tell whether it was so."""
    if holds_studies(session):
        return False
    for make in DEMO:
        demo = make()
        create_study(session, demo.title, demo.document, demo.view)
        # Each in its own moment, so that the list has a fixed order.
        session.commit()
    return True
