"""Entries that are written out in a line: read, changed and resized; and notes with formulas."""

import random
import unittest
from collections.abc import Callable

from axis_path.core import MathError, Study, Window
from axis_path.core.errors import CommandError, LimitError
from axis_path.core.features.entries.commands import EnterCells, ResizeCells
from axis_path.core.features.entries.written import (
    MOST_SIDE,
    resized,
    with_block,
    written_entries,
)
from axis_path.core.language import Vocabulary, note_parts

WINDOW = Window((-10, 10), (-7, 7), 200, 120)
ENTRIES = (
    "1",
    "-2/3",
    "sqrt(2)",
    "f(1, 2)",
    "(1 + i)/2",
    "a b",
    "|a|",
    "0.50",
    "[3, 4][1]",
    "2^-1",
)


class WrittenTest(unittest.TestCase):
    def setUp(self) -> None:
        self.drawn = random.Random(17)  # noqa: S311 - entries, no secrets
        study = Study()
        for line in ("f(u, v) = u v", "a = 1", "b = 2", "x_0 = 1"):
            study.define(line)
        self.names = study.snapshot.analysis.names().and_variables("x")

    def draw(self, rows: int, columns: int) -> tuple[tuple[str, ...], ...]:
        return tuple(tuple(self.drawn.choice(ENTRIES) for _ in range(columns)) for _ in range(rows))

    def text(self, cells: tuple[tuple[str, ...], ...], head: str, *, spaces: str) -> str:
        rows = [f"[{spaces}{f',{spaces}'.join(row)}]" for row in cells]
        return f"{head}[{f',{spaces}'.join(rows)}{spaces}]"

    def test_what_is_written_is_read_and_written_again(self) -> None:
        for _ in range(60):
            cells = self.draw(self.drawn.randint(1, 4), self.drawn.randint(1, 4))
            head = self.drawn.choice(("", "M = ", "x_1=", "  A =  "))
            text = self.text(cells, head, spaces=self.drawn.choice(("", " ", "  ")))
            with self.subTest(text):
                written = written_entries(text, self.names)
                assert written is not None
                self.assertEqual(cells, written.cells)
                self.assertFalse(written.is_list)
                again = written_entries(written.with_cells(cells), self.names)
                assert again is not None
                self.assertEqual(cells, again.cells)
                self.assertTrue(again.text.startswith(head))

    def test_lists_are_columns(self) -> None:
        written = written_entries("L = [1, sqrt(2), 3/4]", self.names)
        assert written is not None
        self.assertEqual((("1",), ("sqrt(2)",), ("3/4",)), written.cells)
        self.assertEqual("L = [1, 9]", written.with_cells((("1",), ("9",))))

    def test_what_is_computed_is_left_alone(self) -> None:
        for text in (
            "A^-1", "M = [[1, 2], [3, 4]]^2", "[1, 2] + [3, 4]", "2 [1, 2]", "from 1 to 3 step 1",
            "list(k, k, 1, 3)", "f(x) = [1, 2]", "# [1, 2]", "(1, 2)", "[[1, 2], [3]]", "[", "",
            "M = [[1, 2], [3, 4]] with [1, 1] = 0",
        ):  # fmt: skip
            with self.subTest(text):
                self.assertIsNone(written_entries(text, self.names))

    def test_blocks_replace_what_they_cover_and_nothing_else(self) -> None:
        for _ in range(60):
            cells = self.draw(3, 3)
            written = written_entries(self.text(cells, "", spaces=" "), self.names)
            assert written is not None
            block = self.draw(self.drawn.randint(1, 3), self.drawn.randint(1, 3))
            row, column = self.drawn.randrange(4), self.drawn.randrange(4)
            made = with_block(written, block, row, column)
            with self.subTest(row=row, column=column):
                for r, line in enumerate(made):
                    for c, cell in enumerate(line):
                        inside = row <= r < row + len(block) and column <= c < column + len(
                            block[0]
                        )
                        old = cells[r][c] if r < 3 and c < 3 else "0"
                        self.assertEqual(block[r - row][c - column] if inside else old, cell)

    def test_sizes_are_limited(self) -> None:
        matrix = written_entries("[[1, 2], [3, 4]]", self.names)
        items = written_entries("[1, 2]", self.names)
        assert matrix is not None
        assert items is not None
        self.assertEqual((("1",), ("3",), ("0",)), resized(matrix, 3, 1))
        cases: tuple[tuple[type[MathError], Callable[[], object]], ...] = (
            (LimitError, lambda: resized(matrix, MOST_SIDE + 1, 1)),
            (LimitError, lambda: with_block(matrix, [["1"]], 0, MOST_SIDE)),
            (CommandError, lambda: resized(matrix, 0, 2)),
            (CommandError, lambda: resized(items, 2, 2)),
            (CommandError, lambda: with_block(items, [["1", "2"]], 0, 0)),
        )
        for error, call in cases:
            with self.assertRaises(error):
                call()

    def test_commands_change_lines_and_what_depends_on_them(self) -> None:
        study = Study()
        study.define("A = [[1, 2], [3, 4]]")
        study.define("d = det(A)")
        line = study.snapshot.line_of("A").id
        study.apply(EnterCells(line, 0, 0, (("5",),)), WINDOW)
        self.assertEqual(("A = [[5, 2], [3, 4]]", "14"),
                         (study.snapshot.line(line).text, study.value("d").exact))  # fmt: skip
        study.apply(ResizeCells(line, 1, 1), WINDOW)
        self.assertEqual("5", study.value("d").exact)
        before = study.snapshot
        for command in (
            EnterCells(line, 0, 0, (("sin(",),)),
            EnterCells(99, 0, 0, (("1",),)),
            ResizeCells(study.snapshot.line_of("d").id, 2, 2),
        ):
            with self.assertRaises(MathError):
                study.apply(command, WINDOW)
            self.assertIs(before, study.snapshot)


class NotesTest(unittest.TestCase):
    def test_formulas_are_typeset_and_text_is_left(self) -> None:
        names = Vocabulary()
        for text, shown in (
            ("no formula", [("no formula", False)]),
            ("see `x^2 + 1`.", [("see ", False), ("x^2 + 1", True), (".", False)]),
            ("`y = x^2`", [("y = x^2", True)]),
            ("`x^2 + y^2 = 36`", [("x^2 + y^2 = 36", True)]),
            ("`f(x) = 2x for x > 0` holds", [("f(x) = 2x for x > 0", True), (" holds", False)]),
            ("`sqrt(` is open", [("sqrt(", False), (" is open", False)]),
            ("an odd ` sign", [("an odd ", False), (" sign", True)]),
            ("<b>`1 < 2`</b>", [("<b>", False), ("1 < 2", True), ("</b>", False)]),
            ("", []),
            ("``", []),
        ):
            with self.subTest(text):
                parts = note_parts(text, names)
                self.assertEqual([piece for piece, _ in shown], [part.text for part in parts])
                if "odd" not in text:
                    self.assertEqual(
                        [is_set for _, is_set in shown], [bool(part.mathml) for part in parts]
                    )

    def test_a_formula_uses_the_names_of_the_study(self) -> None:
        study = Study()
        study.define("rate = 3")
        study.define("# it doubles `2rate`")
        note = study.snapshot.definitions()[-1].note
        self.assertIn("<mi", note[1].mathml)
        self.assertEqual("", note[0].mathml)


if __name__ == "__main__":
    unittest.main()
