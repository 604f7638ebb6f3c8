"""The demo studies of Tern Quay, a small invented harbour."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from sqlalchemy.orm import Session

from axis_path.core import Study
from axis_path.core.draw import Window
from axis_path.core.features.data.section import with_data
from axis_path.core.features.findings.section import SavedQueries
from axis_path.core.features.lines.edits import mark_line, put_family, put_runner, put_trail
from axis_path.core.features.motion.edits import go_on
from axis_path.core.features.sliders.edits import change_slider
from axis_path.core.features.working.section import Working, WorkingLine
from axis_path.core.study import (
    AtEnd,
    AxesSpec,
    Family,
    FitRequest,
    GridKind,
    Play,
    Plot,
    QueryKind,
    Runner,
    SavedQuery,
    SliderKind,
    TableSpec,
    Trail,
    overview,
)
from axis_path.store.studies import Overview, create_study, holds_studies

#: Commands are given with a window; those used here do not look at it.
_ANY_WINDOW = Window((0, 1), (0, 1), 100, 100)


@dataclass(frozen=True, slots=True)
class DemoStudy:
    """A study that a new database begins with."""

    title: str
    document: dict[str, Any]
    view: dict[str, Any]


def _line_id(study: Study, head: str) -> int:
    return next(line.id for line in study.snapshot.lines if line.text.startswith(head))


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
    study.keep(TableSpec("0", "12", "1"))
    height, growing, margin = (_line_id(study, head) for head in ("h(", "g(", "m("))
    saved_queries = [
        SavedQuery(1, margin, "0", "12.4"),
        SavedQuery(2, what=QueryKind.SOLVE, text="m(t) >= 0", low="0", high="12.4", unknown="t"),
        SavedQuery(3, height, None, None, QueryKind.EXTREMA, labels=(1,)),
        SavedQuery(4, height, None, None, QueryKind.INTERSECTIONS, growing),
        SavedQuery(5, height, None, None, QueryKind.INFLECTIONS),
        SavedQuery(6, what=QueryKind.SOLVE, text="h(t) = 3", low="0", high="12.4", unknown="t"),
    ]
    study.keep(SavedQueries(tuple(saved_queries)))
    view = {"window": {"x": [-1.0, 13.0], "y": [-3.2, 4.6]}, "reading": 4.6, "tab": "findings"}
    return DemoStudy("Morning tide", study.to_dict(), view)


def mooring_line() -> DemoStudy:
    """A hanging rope between two bollards; its slack is a slider."""
    study = Study()
    study.define("# A rope hangs between two bollards 8 m apart, 3 m above the water at low tide")
    study.define("rope(x) = s cosh(x/s) - s cosh(4/s) + 3 for -4 <= x <= 4")
    study.set("s", "4.5", low="1.5", high=12, step="0.1")
    rope, slack = study.snapshot.lines[-2].id, study.snapshot.lines[-1].id
    study.edit(put_family, rope, Family(slack, values="3, 4, 6, 9"))
    study.define("# The water: where the rope dips below it, it gets wet")
    study.define("water(x) = w")
    study.set("w", "1.4", low=0, high=3, step="0.05")
    study.define("clear(x) = rope(x) - water(x)")
    study.define("# Soundings along the quay: x from the middle, height of the ground above datum")
    study.define("ground = [(-4, 0.9), (-2.5, 0.3), (-1, -0.4), (0.5, -0.6), (2, -0.2), (4, 0.7)]")
    study.define("# The pull on a bollard in kN, if the rope hangs x metres deep")
    study.define("pull(x) = 0.6x + 4.8/x for x > 0")
    study.edit(mark_line, _line_id(study, "pull("), hidden=True)
    study.keep(TableSpec("-4", "4", "1/2"))
    curve, level, clear, ground, pull = (
        _line_id(study, head) for head in ("rope(", "water(", "clear(", "ground", "pull(")
    )
    saved_queries = [
        SavedQuery(1, clear, "-4", "4"),
        SavedQuery(
            2, curve, None, None, QueryKind.INTERVAL, note="how long the rope is: its arc length"
        ),
        SavedQuery(3, curve, what=QueryKind.POINT, text="3"),
        SavedQuery(4, curve, None, None, QueryKind.BREAKS),
        SavedQuery(5, curve, None, None, QueryKind.INTERSECTIONS, level),
        SavedQuery(6, ground, what=QueryKind.DATA, text="smooth"),
        SavedQuery(7, pull, None, None, QueryKind.ASYMPTOTES),
        SavedQuery(8, curve, what=QueryKind.CROSSING, note="how low it hangs in the middle"),
        SavedQuery(
            9,
            what=QueryKind.SOLVE,
            text="y = rope(x)\nx^2 + (y - 3)^2 = 4",
            note="where a boathook of 2 m reaches it from between the bollards",
        ),
        SavedQuery(
            10,
            what=QueryKind.SOLVE,
            text="p + q = 24\np - q = 3.5",
            note="the pull on both bollards",
        ),
    ]
    study.keep(SavedQueries(tuple(saved_queries)))
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
    study.keep(AxesSpec(grid=GridKind.POLAR, equal=True, title=title))
    view = {"window": {"x": [-6.6, 6.6], "y": [-4.2, 4.2]}, "tab": "findings"}
    return DemoStudy("Beam sweep", study.to_dict(), view)


def wake() -> DemoStudy:
    """A particle on the wake of the ferry: a path with a runner, and a buoy that leaves a trail."""
    study = Study()
    study.define("# Behind the ferry a particle of water goes round while the wave passes")
    study.define("wave(t) = (t - r sin(t), 1 - r cos(t)) for 0 <= t <= 4pi")
    study.set("r", "0.8", low=0, high=2, step="0.05")
    study.define("# A buoy on two waves at once, at the time m; play m to see where it goes")
    study.define("buoy = (6 + 2cos(3m), -1.5 + sin(2m + c))")
    study.set("m", "0.4", low=0, high="2pi", step="pi/180")
    study.set("c", "0.5", low=0, high="2pi", step="pi/24")
    wave, radius, _, buoy, time, phase = (line.id for line in study.snapshot.lines[1:])
    notes = ((radius, "how far it goes round"), (time, "time"), (phase, "between the two waves"))
    for line_id, note in notes:
        slider = study.snapshot.line(line_id).slider
        if slider is not None:
            kind = SliderKind.REAL if line_id == radius else SliderKind.ANGLE
            play = Play(9.0, at_end=AtEnd.RESTART) if line_id == time else slider.play
            study.edit(change_slider, line_id, replace(slider, note=note, kind=kind, play=play))
    study.edit(put_runner, wave, Runner("2.2", Play(12.0, at_end=AtEnd.RESTART)))
    study.edit(put_trail, wave, Trail(most=300))
    study.edit(put_trail, buoy, Trail(most=800))
    study.edit(go_on, [{time: f"pi*{k}/180"} for k in range(24)])
    study.keep(AxesSpec(equal=True))
    view = {"window": {"x": [-1.2, 13.8], "y": [-4.0, 4.5]}, "tab": "values"}
    return DemoStudy("Wake", study.to_dict(), view)


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
    hidden = next(line for line in study.snapshot.lines if line.text.startswith("depth("))
    study.edit(mark_line, hidden.id, hidden=True)
    study.keep(AxesSpec(grid=GridKind.COARSE, equal=True))
    view = {"window": {"x": [-7.0, 7.0], "y": [-4.5, 4.5]}, "tab": "findings"}
    return DemoStudy("Breakwater", study.to_dict(), view)


def lock_gate() -> DemoStudy:
    """Forces on a lock gate from three balances, water levels beside it, and its tide gauge."""
    study = Study()
    study.define(
        "# The lock gate of Tern Quay: forces on its three hinges in kN, from three balances"
    )
    study.define("A = [[1, 1, 1], [2, -1, 0], [1, 0, 3]]")
    study.define("b = [48, 6, 60]")
    study.define("F = A^-1 b")
    study.define("# Water levels at four marks beside the gate, in metres, hour by hour")
    study.define("R = [[2.1, 2.4, 2.6], [2.0, 2.3, 2.6], [1.2, 1.3, 1.5], [1.1, 1.3, 1.4]]")
    study.define("drop = R[1, all] - R[4, all]")
    study.define("# The tide gauge is a coil behind a resistor: its impedance in ohms at w Hz")
    study.define("z = 12 + pi w i/25 + 500/(w i)")
    study.set("w", "50", low=10, high=120, step=5)
    study.define("z_low = conj(z)")
    lines = (
        "# The same forces by reducing rows; `F` above is the inverse times `b`",
        "p + q + r = 48; 2p - q = 6; p + 3r = 60",
        "A F",
        "det(A)",
        "list(mean(R[k, all]), k, 1, 4)",
        "sd(R[1, all])",
        "s = z z_low",
        "sqrt(s)",
        "t^3 - 6t^2 + 9t",
        "factor(720)",
    )
    work = tuple(WorkingLine(number, text) for number, text in enumerate(lines, 1))
    study.keep(Working(work))
    study.keep(AxesSpec(equal=True))
    view = {"window": {"x": [-3.0, 17.0], "y": [-7.5, 7.5]}, "tab": "working"}
    return DemoStudy("Lock gate", study.to_dict(), view)


def ferry_ramp() -> DemoStudy:
    """What a car needs to drive up the ferry ramp, as the tide lowers the ferry."""
    study = Study()
    study.define("# The ramp to the ferry at Tern Quay rises by h; a car drives up from the deck")
    study.define("h = 3 m")
    study.set("h", "3", low=0, high=6, step="0.1")
    study.define(
        "ramp: D = S + F; F = mu N; N = W cos a; S = W sin a; W = M g_n; a = asin(h/l); "
        "l = 24 m; M = 1400 kg; mu = 0.015"
    )
    ramp = _line_id(study, "ramp")
    study.apply({"do": "show_in", "id": ramp, "name": "D", "unit": "kN"}, _ANY_WINDOW)
    study.define("# The force at every height, and where it stands now")
    study.define("drive(z) = W (z/l + mu sqrt(1 - (z/l)^2)) for 0 m <= z <= 6 m")
    study.define("now = (h, D)")
    study.define("# Brakes locked at a speed v, with a grip of 0.6: how far it slides downhill")
    study.define("slide: v^2 = 2 b r; b = g_n (0.6 cos a - sin a); v = 18 km/h")
    work = ("# The same forces in other units", "D in kN", "a in °", "S/W", "r in ft")
    study.keep(Working(tuple(WorkingLine(k, text) for k, text in enumerate(work, 1))))
    study.keep(TableSpec("0", "6", "1/2"))
    study.apply({"do": "axis_unit", "axis": "y", "unit": "kN"}, _ANY_WINDOW)
    view = {
        "window": {"x": [-0.7, 7.0], "y": [-0.9, 4.6], "x_unit": "m", "y_unit": "kN"},
        "tab": "working",
    }
    return DemoStudy("Ferry ramp", study.to_dict(), view)


#: Speeds of the harbour launch in knots, and what it burned at each in litres per hour.
_SPEEDS = ["4", "5", "6", "7", "8", "9", "10", "11", "12", "13"]
_LITRES = ["3.1", "3.9", "5.2", "6.4", "8.3", "10.1", "12.6", "14.9", "18.1", "21.2"]


def fuel_log() -> DemoStudy:
    """What the harbour launch burns at each speed, with a fit, and how far a tank takes it."""
    study = Study()
    study.define("# The harbour launch: litres per hour at a speed of v knots, from its log")
    study.column("speed", _SPEEDS, "kn")
    study.column("litres", _LITRES, "L/h")
    study.edit(
        with_data,
        plots=(Plot("speed", "litres"),),
        fits=(FitRequest(1, "polynomial", "speed", "litres", 2),),
    )
    study.define("# The fuel for one nautical mile, where u(v) is near what was measured")
    study.define("u(v) = 2.8 L/h - 0.51 L/(h kn) v + 0.148 L/(h kn^2) v^2 for 4 kn <= v <= 13 kn")
    study.define("m(v) = u(v)/v for 4 kn <= v <= 13 kn")
    for unit in ("L/h", "L/nmi"):
        study.apply({"do": "axis_unit", "axis": "y", "unit": unit}, _ANY_WINDOW)
    study.keep(
        SavedQueries((SavedQuery(1, _line_id(study, "m("), "4 kn", "13 kn", QueryKind.EXTREMA),))
    )
    view = {
        "window": {"x": [-1.0, 15.0], "y": [-2.0, 24.0], "x_unit": "kn"}, "tab": "data",
    }  # fmt: skip
    return DemoStudy("Fuel log", study.to_dict(), view)


DEMO = (lock_gate, ferry_ramp, fuel_log, breakwater, wake, beam_sweep, mooring_line, morning_tide)


def load_demo(session: Session) -> bool:
    """Add the demo studies to a database that never held a study; tell whether it was so."""
    if holds_studies(session):
        return False
    for make in DEMO:
        demo = make()
        shown = Overview(**overview(Study.from_dict(demo.document).snapshot))
        create_study(session, demo.title, demo.document, demo.view, shown)
        # Each in its own moment, so that the list has a fixed order.
        session.commit()
    return True
