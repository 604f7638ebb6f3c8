"""Texts read as columns: what is written in any way is read back, and nothing is dropped in silence."""

import unittest
from fractions import Fraction
from itertools import product

import numpy as np

from axis_path.core.data import read_columns
from axis_path.core.errors import DataError

SIGNS = {"tab": "\t", "semicolon": ";", "comma": ",", "space": " "}
#: First lines, and the names and units that a study can have of them.
HEADS = (
    ("speed,litres", [("speed", ""), ("litres", "")]),
    ("speed (kn),litres [L/h]", [("speed", "kn"), ("litres", "L/h")]),
    ("t,t,t", [("t", ""), ("t2", ""), ("t3", "")]),
    ("wind speed,2nd try", [("windSpeed", ""), ("ndTry", "")]),
    ('"a, b",c', [("aB", ""), ("c", "")]),
    (",Ω", [("col1", ""), ("Ω", "")]),
    ("Größe,t / s,höhe (m)", [("Größe", ""), ("t", "s"), ("höhe", "m")]),
    ("масса [кг],速さ", [("масса", "кг"), ("速さ", "")]),
    ("(" * 20_000 + ",b", [("col1", ""), ("b", "")]),
)


def written(value: Fraction, point: str) -> str:
    return f"{float(value):g}".replace(".", point)


class ReadingTest(unittest.TestCase):
    def test_written_text_is_read_back(self) -> None:
        draw = np.random.default_rng(7)
        for (name, sign), point, has_header, end in product(
            SIGNS.items(), ".,", (True, False), ("\n", "\r\n")
        ):
            if sign == point:
                continue
            with self.subTest(name, point=point, header=has_header, end=repr(end)):
                table = [
                    [Fraction(int(draw.integers(-9999, 9999)), 100) for _ in range(3)]
                    for _ in range(12)
                ]
                # At least one cell has a decimal sign in it, else nothing tells which it is.
                table[0] = [Fraction(5, 2), Fraction(-1, 4), Fraction(3)]
                lines = [sign.join(written(cell, point) for cell in row) for row in table]
                if has_header:
                    lines.insert(0, sign.join(("t", "u", "v")))
                read = read_columns("\ufeff" + end.join(lines) + end)
                self.assertEqual((name, point), (read.separator, read.decimal))
                self.assertEqual(has_header, read.has_header)
                rows = list(zip(*(column.cells for column in read.columns), strict=True))
                self.assertEqual([tuple(row) for row in table], rows)
                self.assertEqual(0, read.bad_count)

    def test_names_and_units_are_made_of_heads(self) -> None:
        for head, expected in HEADS:
            with self.subTest(head):
                width = len(expected)
                body = "\n".join(",".join(["1"] * width) for _ in range(3))
                read = read_columns(f"{head}\n{body}")
                self.assertEqual(expected, [(column.name, column.unit) for column in read.columns])

    def test_missing_cells_are_missing_and_wrong_ones_are_listed(self) -> None:
        read = read_columns("t,u\n1,NA\n2,\n3\nfog,4\n5,1.2.3\n")
        self.assertEqual([1, 2, 3, None, 5], list(read.columns[0].cells))
        self.assertEqual([None, None, None, 4, None], list(read.columns[1].cells))
        self.assertEqual(
            [(5, 1, "fog"), (6, 2, "1.2.3")], [(b.line, b.column, b.text) for b in read.bad]
        )
        # Every cell that was written is a number, missing, or listed; the first bad ones with places.
        many = read_columns("t\n1\n" + "fog\n" * 500)
        self.assertEqual((500, 200), (many.bad_count, len(many.bad)))

    def test_detected_settings_can_be_overridden(self) -> None:
        text = "1,5\n2,5\n"
        self.assertEqual(
            [Fraction(3, 2), Fraction(5, 2)], list(read_columns(text).columns[0].cells)
        )
        pair = read_columns(text, separator="comma")
        self.assertEqual([[1, 2], [5, 5]], [list(column.cells) for column in pair.columns])
        self.assertEqual(1, len(read_columns("a\n1\n", has_header=True).columns[0].cells))
        self.assertEqual(1, read_columns("a\n1\n", has_header=False).bad_count)

    def test_blank_cells_at_either_end_stay_where_they_are(self) -> None:
        for sign in ("\t", ";", ","):
            text = "\n".join(sign.join(row) for row in (
                ("a", "b", "c"), ("", "2", "3"), ("4", "5", ""), ("", "", "6"), ("7", "", ""),
            ))  # fmt: skip
            with self.subTest(sign):
                read = read_columns(text)
                self.assertEqual(
                    [[None, 4, None, 7], [2, 5, None, None], [3, None, 6, None]],
                    [list(column.cells) for column in read.columns],
                )

    def test_a_first_row_of_dates_or_large_numbers_is_no_header(self) -> None:
        for first, count, bad in (
            ("2026-11-30;3", 3, 3), ("30.11.2026;3", 3, 3), ("1,234;3", 3, 0), ("1 234,5;3", 3, 0),
            ("NA;3", 3, 0), ("day;height", 2, 0),
        ):  # fmt: skip
            with self.subTest(first):
                day = first.split(";")[0] if bad else "1"
                read = read_columns(f"{first}\n{day};4\n{day};5")
                self.assertEqual((count, bad), (len(read.columns[1].cells), read.bad_count))
        grouped = read_columns("1,234.5;1\n-12,345;2").columns[0].cells
        self.assertEqual([Fraction("1234.5"), Fraction(-12345)], list(grouped))

    def test_ragged_rows_keep_their_separator(self) -> None:
        read = read_columns("t,h,note\n0,1.5\n1,1.7,2\n2\n3,1.2\n")
        self.assertEqual(("comma", True), (read.separator, read.has_header))
        self.assertEqual([0, 1, 2, 3], list(read.columns[0].cells))

    def test_unreadable_data_state_the_reason(self) -> None:
        for text, words in (
            ("", "empty"),
            ("\n \n", "empty"),
            (",".join("1" * 300), "columns"),
            ("1\n" * 1_000_001, "rows"),
        ):
            with self.subTest(text[:20]), self.assertRaisesRegex(DataError, words):
                read_columns(text)
