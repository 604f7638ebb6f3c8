"""Random histories of every command there is, as typed as its struct says, or damaged."""

import json
import random
import unittest
from pathlib import Path
from typing import Any

from msgspec import inspect

from axis_path.core import MathError, Study, Window
from axis_path.core.lines.meaning import Kind
from axis_path.core.study.commands import COMMANDS, NAMES

WINDOW = Window((-10, 10), (-7, 7), 200, 120)
TEXTS = (
    "f(x) = x^2 - a", "g(x) = f(x) + 1 for x > 0", "a = 2", "P(t) = (a t, t^2) for 0 <= t <= 3",
    "x^2 + y^2 = 4", "f", "a", "b", "g", "x", "1", "-1/2", "2pi", "0, 1, 2", "depth", "load", "rate",
    "w = 2 (5 km/h)",
    "depth > 2", "load/depth", "linear", "polynomial", "k x + m", "lines", "", "fog(", "x^2 = a",
)  # fmt: skip
#: What often stands in some fields, so that many commands can be carried out.
USUAL: dict[str, tuple[Any, ...]] = {
    "x": ("depth", "load"), "y": ("load", "depth"), "name": ("depth", "load", "rate"),
    "model": ("linear", "polynomial"), "degree": (1, None), "text": ("1", "4", "x^2"),
    "formula": ("",), "start": ({},), "unit": ("", "m/s", "km/h", "min", "ft"),
}  # fmt: skip
NUMBERS = (0, 1, -1, 2.5, 1e-9, 1e9, 0.1, 3)
WRONG: tuple[Any, ...] = (None, True, -1, 1e308, "\0", "x" * 2_001, [], {}, [[1]], {"x": 1}, 2**60)
SEED, ROUNDS, COMMANDS_IN_ROUND = 29, 90, 80


class Maker:
    """Makes random plain data that a type allows."""

    def __init__(self, drawn: random.Random, study: Study) -> None:
        self.drawn = drawn
        self.ids = [line.id for line in study.snapshot.lines] or [1]
        sliders = [line.id for line in study.snapshot.lines if line.moving is not None]
        lists = [line.id for line in study.snapshot.lines if line.text.endswith("]")]
        #: Lines that a command needs to do anything, by its name.
        self.fitting = {
            "choose_solution": [item.id for item in study.definitions() if item.defines],
            "search_between": [item.id for item in study.definitions() if item.defines],
            "show_in": [line.id for line in study.snapshot.lines if line.text.startswith("w")],
            "runner": [item.id for item in study.definitions() if item.kind is Kind.PATH],
            "set": sliders, "range": sliders, "widen": sliders, "fix": sliders,
            "enter_cells": lists, "resize_cells": lists,
        }  # fmt: skip

    def of(self, kind: inspect.Type) -> Any:  # noqa: C901, PLR0911, PLR0912 - a case for each type
        drawn = self.drawn
        match kind:
            case inspect.Metadata(type=inner, extra=extra):
                if extra and "changes" in extra:
                    return self.fields(inspect.type_info(extra["changes"]), least=0.3)
                return self.of(inner)
            case inspect.LiteralType(values=values):
                return drawn.choice(values)
            case inspect.EnumType(cls=cls):
                return drawn.choice([member.value for member in cls])
            case inspect.UnionType(types=members):
                return self.of(drawn.choice(members))
            case inspect.TupleType(item_types=items):
                return [self.of(item) for item in items]
            case inspect.ListType(item_type=item) | inspect.VarTupleType(item_type=item):
                return [self.of(item) for _ in range(drawn.randrange(4))]
            case inspect.DictType(value_type=value):
                return {drawn.choice("abkm"): self.of(value) for _ in range(drawn.randrange(3))}
            case inspect.StructType() | inspect.DataclassType():
                return self.fields(kind, least=0.6)
            case inspect.IntType():
                return drawn.choice([*self.ids, 0, 1, 2, 99])
            case inspect.FloatType():
                return drawn.choice(NUMBERS)
            case inspect.BoolType():
                return drawn.random() < 0.5
            case inspect.StrType():
                return drawn.choice(TEXTS)
        return None

    def fields(self, kind: Any, least: float) -> dict[str, Any]:
        """Return the fields of a struct, some of those that may be left out."""
        return {
            field.encode_name: self.drawn.choice(USUAL[field.name])
            if field.name in USUAL and self.drawn.random() < 0.5
            else self.of(field.type)
            for field in kind.fields
            if field.required or self.drawn.random() < least
        }

    def command(self) -> dict[str, Any]:
        """Return any command; one in six is damaged."""
        name = self.drawn.choice(list(NAMES))
        made = {"do": name} | self.fields(inspect.type_info(NAMES[name]), least=0.5)
        if self.fitting.get(name) and self.drawn.random() < 0.5:
            made["id"] = self.drawn.choice(self.fitting[name])
            if name == "enter_cells":
                made |= {"row": 0, "column": 0, "cells": [["7"]], "in_working": False}
        if self.drawn.random() < 1 / 6:
            field = self.drawn.choice([*made, "unknown"])
            if field in made and self.drawn.random() < 0.3:
                del made[field]
            else:
                made[field] = self.drawn.choice(WRONG)
        return made


class HistoryTest(unittest.TestCase):
    def test_failing_commands_leave_nothing_changed(self) -> None:
        refused, done = 0, set[type]()
        whole = json.loads((Path(__file__).parent / "format_1" / "all_sections.json").read_text())
        for seed in range(ROUNDS):
            drawn = random.Random(SEED + seed)  # noqa: S311 - a fixed seed is wanted
            study = Study.from_dict(whole) if seed % 2 else Study()
            if seed % 2:
                study.define("way(t) = 3 m/s t for 0 s <= t <= 9 s")
                study.define("pair: j^2 = 4; o = j + 1")
            for _ in range(COMMANDS_IN_ROUND):
                command = Maker(drawn, study).command()
                before, document = study.snapshot, study.to_dict()
                sent = json.dumps(command)
                with self.subTest(seed=seed, command=sent[:300]):
                    try:
                        label = study.apply(command, WINDOW)
                    except MathError as error:
                        refused += 1
                        self.assertTrue(error.message)
                        self.assertIs(before, study.snapshot)
                    else:
                        done.add(NAMES[command["do"]])
                        self.assertTrue(label)
                        fields = study.to_dict()
                        self.assertEqual(
                            fields, Study.from_dict(json.loads(json.dumps(fields))).to_dict()
                        )
                    # Neither the command nor the study that it was tried on has changed.
                    self.assertEqual(sent, json.dumps(command))
                    self.assertEqual(document, _document_of(before))
        self.assertGreater(refused, 100)
        self.assertEqual(set(), set(COMMANDS) - done)


def _document_of(snapshot: Any) -> dict[str, Any]:
    study = Study()
    study.snapshot = snapshot
    return study.to_dict()
