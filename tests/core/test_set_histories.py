"""Studies with sets that are edited at random: after every step they show what fresh ones show."""

import random
import unittest
from fractions import Fraction
from typing import Any

from axis_path.core import MathError, Study
from axis_path.core.draw import Window
from axis_path.core.evaluate import Result
from axis_path.core.features.what_if.queries import WhatIf, WhatIfTable
from axis_path.core.features.what_if.section import WhatIfSpec
from axis_path.core.features.working.queries import WorkingResults
from axis_path.core.features.working.section import Working, WorkingLine

WINDOW = Window((-8.0, 8.0), (-5.0, 5.0), 640, 400)
#: What a line may be; numbers are put in. Names are shared, so that edits make and break sets.
TEXTS = (
    "a = {}", "a = {} m", "b = a + {}", "u + v = {}; u - v = a", "u^2 = {}; v = 2*u",
    "v = {}; u = cos v", "u + w = {}; w = b; v = u*w", "ramp: u = {} a; v^2 = u^2 + 1", "w = {} u",
    "f(x) = u x + {}", "g(x) = f(x) - v", "k_1: u = {}; v = u + k_2; k_2 = 3", "# a note {}",
    "u v = {}; u = v", "b = sin({})", "sinn({", "u = {};", "L = [u, v, {}]", "P = (u, v)",
    "m = {} kg; W = m g_n; u = W/(1 N)", "x + y = {}; x - y = u", "h(x) = x^2 for x < u",
)  # fmt: skip


class HistoryTest(unittest.TestCase):
    def test_an_edited_study_shows_what_a_fresh_one_shows(self) -> None:
        for seed in range(14):
            drawn = random.Random(100 + seed)  # noqa: S311 - a fixed seed is wanted
            study = Study()
            for _ in range(18):
                self.edit(study, drawn)
                fresh = Study.from_dict(study.to_dict())
                texts = [line.text for line in study.snapshot.lines]
                with self.subTest(seed=seed, lines=texts):
                    self.assertEqual(_problems(fresh), _problems(study))
                    for name in ("a", "b", "u", "v", "w", "W", "f(2)", "g(1)", "L", "P", "h(1)"):
                        self.assertEqual(_shown(fresh, name), _shown(study, name), name)
                    one, other = (_scene(one) for one in (fresh, study))
                    self.assertEqual(one["sets"], other["sets"])
                    self.assertEqual(_curves(one), _curves(other))

    def edit(self, study: Study, drawn: random.Random) -> None:
        """Do something to a study; what is refused leaves it as it is."""
        lines = study.snapshot.lines
        ids = [line.id for line in lines]
        text = drawn.choice(TEXTS)
        text = text.format(drawn.randrange(1, 9)) if text.count("{}") else text
        chance = drawn.random()
        commands: list[dict[str, Any]] = [{"do": "write", "id": None, "text": text}]
        if ids and chance < 0.35:
            commands = [{"do": "write", "id": drawn.choice(ids), "text": text}]
        elif ids and chance < 0.45:
            commands = [{"do": "remove", "id": drawn.choice(ids)}]
        elif ids and chance < 0.55:
            commands = [
                {"do": "disable", "id": drawn.choice(ids), "disabled": drawn.random() < 0.5}
            ]
        elif ids and chance < 0.65:
            number = drawn.randrange(3)
            commands = [{"do": "choose_solution", "id": drawn.choice(ids), "number": number}]
        elif ids and chance < 0.75:
            bound = {"name": "u", "low": "0", "high": str(drawn.randrange(1, 9))}
            commands = [{"do": "search_between", "id": drawn.choice(ids), "bounds": [bound]}]
        elif study.snapshot.sliders and chance < 0.9:
            name = drawn.choice(sorted(study.snapshot.sliders))
            line = study.snapshot.line_of(name).id
            commands = [{"do": "set", "id": line, "value": drawn.randrange(1, 6)}]
        for command in commands:
            try:
                study.apply(command, WINDOW)
            except MathError as err:
                self.assertTrue(err.message)

    def test_a_what_if_table_shows_what_the_changed_studies_show(self) -> None:
        drawn = random.Random(7)  # noqa: S311 - a fixed seed is wanted
        for text, names in (
            ("u^3 + u = k; v = u + k", ("u", "v", "2v - k")),
            ("u^2 + k = 5; v = 1/u", ("u", "v", "v^2")),
            ("u + v = k; u v = 1", ("u", "v", "u^2 + v^2")),
            ("exp(u) = k; v = cos u", ("u", "v", "v + u")),
        ):
            study = Study()
            for line in ("k = 1", text, "q = 3v"):
                study.define(line)
            low, step = drawn.randrange(-6, 1), Fraction(drawn.randrange(1, 7), 4)
            spec = WhatIfSpec(name="k", start=str(low), stop=str(low + 9 * step), step=str(step),
                              columns=(*names, "q"))  # fmt: skip
            table = study.snapshot.query(WhatIf).table(spec)
            for row in range(table.rows.count):
                fresh = Study()
                for line in (f"k = {float(low + row * step)}", text, "q = 3v"):
                    fresh.define(line)
                with self.subTest(text, k=float(low + row * step)):
                    self.assertEqual(
                        [_value(fresh, name) for name in (*names, "q")], _texts(table, row)
                    )

    def test_working_uses_the_names_of_sets(self) -> None:
        study = Study()
        for line in ("a = 2", "u^2 = a; v = 3*u", "m = 3 kg; W = m g_n"):
            study.define(line)
        study.apply({"do": "choose_solution", "id": 2, "number": 1}, WINDOW)
        lines = (
            "u v",
            "r = u + v",
            "r/u",
            "W/m in cm/s^2",
            "[u, v, u v]",
        )
        study.keep(Working(tuple(WorkingLine(k, text) for k, text in enumerate(lines, 1))))
        self.assertEqual(["6", "4√2", "4", "196133/200 cm/s²", "[√2, 3√2, 6]"], self.worked(study))
        study.apply({"do": "set", "id": 1, "value": 8}, WINDOW)
        self.assertEqual("24", self.worked(study)[0])

    def worked(self, study: Study) -> list[str | None]:
        results = study.snapshot.query(WorkingResults)
        return [results.result(value).exact for value in results.lines()]


def _problems(study: Study) -> list[str]:
    return [d.problem.message if d.problem else "" for d in study.snapshot.definitions()]


def _shown(study: Study, text: str) -> str:
    try:
        result = study.evaluate(text)
        return result.reason or result.decimal(12)
    except MathError as err:
        return err.message


def _value(study: Study, text: str) -> str:
    try:
        result = study.evaluate(text)
    except MathError:
        return ""
    return "" if result.reason else result.decimal(6)


def _texts(table: WhatIfTable, row: int) -> list[str]:
    cells = table.cells(row)
    return [cell.decimal(6) if isinstance(cell, Result) else "" for cell in cells]


def _scene(study: Study) -> dict[str, Any]:
    made: dict[str, Any] = study.scene(WINDOW).to_dict()
    return made


def _curves(scene: dict[str, Any]) -> list[Any]:
    return [(row["curve"] or {}).get("pieces") for row in scene["rows"]]
