"""Studies with units that are edited at random: after every step they show what fresh ones show."""

import random
import unittest
from typing import Any

from axis_path.core import MathError, Study, Window
from axis_path.core.features.working.queries import WorkingResults
from axis_path.core.features.working.section import Working, WorkingLine

WINDOW = Window(x=(-2, 8), y=(-20, 60), width=500, height=300)
#: What a line may be; numbers and units are put in. The names are shared by many.
TEXTS = (
    "a = {n} {length}", "a = {n}", "a = {n} {time}", "b = {n} {speed}", "b = a/(2 s)", "s = {n}",
    "m = {n} kg", "f(t) = a + b t", "f(t) = {n} {length} sin(t/(1 s))", "g(t) = f(t) - {n} {length}",
    "g(t) = f'(t)", "h(t) = f(t) for 0 s <= t <= {n} {time}", "h(x) = x^2 - {n}", "P = (2 s, a)",
    "P = (a, {n} m)", "w(p) = (p, b p) for 0 {time} <= p <= {n} {time}", "k = 2 s + {n} {time}",
    "x^2 + y^2 = a^2", "ring: x^2 + y^2 = {n} {length}^2", "set: c = a {n}; d = c + b 1 s",
    "T(t) = {n} °C + 2 K/s t", "D(t) = T(t) - {n} °C", "n(t) = {n} {length}", "c = a in {length}",
    "# a note in {length}", "a = {n} {length} + 1 kg", "v = f(2 s)/b", "L = [a, 2a, {n} {length}]",
)  # fmt: skip
UNITS = {
    "length": ("m", "cm", "ft", "km"), "time": ("s", "ms", "min"), "speed": ("m/s", "km/h", "kn"),
}  # fmt: skip
ASKED = ("a", "b", "c", "d", "k", "m", "v", "f(1 s)", "g(2 s)", "h(1 s)", "L", "P", "f'(1 s)",
         "T(3 s)", "D(3 s)", "h(2)", "2 a/b", "n(5 s)", "a in ft")  # fmt: skip
WORKED = ("2 a", "r = a/b", "r in min", "f(1 s) + a", "q = 3 {length}", "q + a")


class HistoryTest(unittest.TestCase):
    def test_an_edited_study_shows_what_a_fresh_one_shows(self) -> None:
        done = set[str]()
        for seed in range(10):
            drawn = random.Random(40 + seed)  # noqa: S311 - a fixed seed is wanted
            study = Study()
            work = [_filled(text, drawn) for text in WORKED]
            study.keep(Working(tuple(WorkingLine(k, text) for k, text in enumerate(work, 1))))
            for _ in range(20):
                done |= self.edit(study, drawn)
                fresh = Study.from_dict(study.to_dict())
                texts = [line.text for line in study.snapshot.lines]
                with self.subTest(seed=seed, lines=texts):
                    self.assertEqual(_problems(fresh), _problems(study))
                    for text in ASKED:
                        self.assertEqual(_shown(fresh, text), _shown(study, text), text)
                    one, other = (made.scene(WINDOW).to_dict() for made in (fresh, study))
                    for part in ("units", "axes", "sets", "rows"):
                        self.assertEqual(_lasting(one[part]), _lasting(other[part]), part)
                    self.assertEqual(_worked(fresh), _worked(study))
        self.assertEqual(
            {"write", "remove", "disable", "set", "show_in", "axis_unit", "rename"}, done
        )

    def edit(self, study: Study, drawn: random.Random) -> set[str]:
        """Do something to a study, and return what; what is refused leaves it as it is."""
        ids = [line.id for line in study.snapshot.lines] or [1]
        one, unit = (
            drawn.choice(ids),
            drawn.choice([unit for units in UNITS.values() for unit in units]),
        )
        commands: list[dict[str, Any]] = [
            {"do": "write", "id": None, "text": _filled(drawn.choice(TEXTS), drawn)},
            {"do": "write", "id": one, "text": _filled(drawn.choice(TEXTS), drawn)},
            {"do": "remove", "id": one},
            {"do": "disable", "id": one, "disabled": drawn.random() < 0.5},
            {"do": "set", "id": one, "value": drawn.randrange(1, 9)},
            {"do": "show_in", "id": one, "unit": drawn.choice((unit, unit, ""))},
            {"do": "show_in", "id": one, "unit": unit, "name": drawn.choice("cd")},
            {"do": "axis_unit", "axis": drawn.choice("xy"), "unit": unit},
            {"do": "rename", "id": one, "name": drawn.choice("abcq")},
        ]
        command = drawn.choices(commands, weights=(6, 3, 1, 1, 2, 2, 1, 3, 1))[0]
        before = study.to_dict()
        try:
            study.apply(command, WINDOW)
        except MathError as err:
            self.assertTrue(err.message)
            self.assertEqual(before, study.to_dict())
            return set()
        return {command["do"]}


def _filled(text: str, drawn: random.Random) -> str:
    """Return a line with numbers and units of the dimensions that it names."""
    while "{n}" in text:
        text = text.replace("{n}", str(drawn.randrange(1, 9)), 1)
    for name, units in UNITS.items():
        while f"{{{name}}}" in text:
            text = text.replace(f"{{{name}}}", drawn.choice(units), 1)
    return text


def _problems(study: Study) -> list[str]:
    return [d.problem.message if d.problem else "" for d in study.snapshot.definitions()]


def _shown(study: Study, text: str) -> str:
    try:
        result = study.evaluate(text)
    except MathError as err:
        return err.message
    return result.reason or f"{result.decimal(12)} | {result.exact}"


def _worked(study: Study) -> list[str]:
    results = study.snapshot.query(WorkingResults)
    shown = []
    for work in study.snapshot.section(Working).lines:
        try:
            value = next(value for value in results.lines() if value.line.id == work.id)
            shown.append(results.result(value).decimal(10))
        except MathError as err:
            shown.append(err.message)
    return shown


def _lasting(part: Any) -> Any:
    """Return plain data without what counts the states of a study."""
    if isinstance(part, dict):
        return {key: _lasting(one) for key, one in part.items() if key not in ("version", "key")}
    return [_lasting(one) for one in part] if isinstance(part, list) else part
