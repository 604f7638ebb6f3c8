"""Lines of a science lesson with a fault in their units: where it is, and what is said of it."""

import unittest
from itertools import permutations

from axis_path.core import MathError, Study
from axis_path.core.errors import UnitError

#: Lines that are right before them, the line with the fault, where it is marked, and words that
#: have to stand in the sentence.
FAULTS: tuple[tuple[tuple[str, ...], str, str, tuple[str, ...]], ...] = (
    ((), "d = 3 m + 2 s", "", ("length (m)", "time (s)")),
    ((), "d = 3 m - 2 kg", "", ("length (m)", "mass (kg)")),
    (("m = 12 kg",), "F = m g_n in J", "", ("force", "energy", "differ by m")),
    (("m = 12 kg", "v = 3 m/s"), "E = 1/2 m v in J", "", ("energy", "differ by m/s")),
    (("m = 12 kg", "v = 3 m/s"), "p = m v^2 + m v", "", ("differ by m/s",)),
    (("t = 4 s",), "x_0 = sin(t)", "sin(t)", ("time",)),
    (("t = 4 s",), "x_0 = exp(-t)", "", ("time",)),
    (("l = 4 m",), "x_0 = ln(l)", "ln(l)", ("length",)),
    (("l = 4 m",), "x_0 = 2^l", "", ("length",)),
    (("l = 4 m",), "A_0 = l^2 + l", "", ("area", "length", "differ by m")),
    (("l = 4 m", "b = 2 kg"), "q = max(l, b)", "", ("length", "mass")),
    (("l = 4 m",), "q = |l| - 1", "", ("length", "plain number")),
    (("U = 9 V", "R = 3 Ω"), "I = U R in A", "", ("differ by",)),
    (("P = 60 W", "t = 5 min"), "E = P/t in kJ", "", ("energy", "differ by")),
    (("p = 2 bar", "A_1 = 3 cm^2"), "F = p/A_1 in N", "", ("force",)),
    (("v = 50 km/h",), "s = v in km", "", ("length", "speed", "differ by")),
    (("v = 50 km/h",), "v = 3", "v", ("is defined already",)),
    ((), "f(t) = 3 m/s t + 2 s for 0 s <= t <= 4 s", "", ("length", "time")),
    ((), "f(t) = 3 m/s t for 0 s <= t <= 4 m", "", ("time", "length")),
    (("f(t) = 3 m/s t for 0 s <= t <= 4 s",), "q = f(2)", "2", ("time", "plain number")),
    (("f(t) = 3 m/s t for 0 s <= t <= 4 s",), "q = f(2 m)", "2 m", ("time", "length")),
    (("f(t) = 3 m/s t for 0 s <= t <= 4 s",), "q = f'(1 s) + 2 m", "", ("speed", "length")),
    ((), "T = 20 °C + 30 °C", "", ("temperature",)),
    ((), "q = 2 * 20 °C", "", ("multiple of a temperature",)),
    (("c = 4.19 kJ/(kg K)", "m = 2 kg"), "Q = c m 20 °C", "", ()),
    (("L = [1 m, 2 m]",), "q = sum(L) + 3 s", "", ("length", "time")),
    ((), "L = [1 m, 2 s]", "", ("length", "time")),
    (("P = (1 m, 2 m)",), "Q = P + (1 s, 2 m)", "", ("length", "time")),
    (("h = 2 m",), "y = x + h for 0 s <= x <= 3 s", "", ("time", "length")),
    (("h = 2 m",), "x^2 + y^2 = h", "", ()),
    (("r = 2 m",), "x^2/r + y = r^2", "", ()),
    (("m = 3 kg",), "W = m a_0; a_0 = 2 m/s", "", ()),
    ((), "W = 3 kg; W = 2 s", "", ("mass", "time")),
    ((), "F = m_1 a_1; m_1 = 3 kg; a_1 = 4 m/s^2; F = 12 J", "", ("differ by m",)),
    ((), "u_1 + u_2 = 3 m; u_1 - u_2 = 1 s", "", ("length", "time")),
)  # fmt: skip
#: Of these nothing is wrong: what the language takes as fitting.
RIGHT = (
    ("m = 3 kg", "x^2 + y^2 = m"), ("r = 2 m", "x^2/r + y = r"), ("c = 4.19 kJ/(kg K)", "Q = c (2 kg) (20 °C)"),
    ("T = 20 °C", "D = T - 15 °C"), ("w = 3 rad/s", "v = w (2 m) + 1 m/s"), ("a = 30°", "s = sin(a)"),
    ("l = 4 m", "A = l^2 + 0"), ("t = 4 s", "q = exp(-t/(2 s))"), ("l = 4 m", "q = sqrt(l^2 + 9 m^2)"),
    ("n = 5 mol", "N = n N_A"), ("q = 12 L/(100 km)", "d = 40 L/q in km"), ("x_0 = 3 %", "y_0 = 2 + x_0"),
    ("f(x) = x^2", "A = f(3 m)", "B = f(3 s)"), ("g(x) = x + 1 m", "q = g(2 m)"), ("e_1 = 5 kW h", "j = e_1 in MJ"),
)  # fmt: skip


class FaultTest(unittest.TestCase):
    def written(self, *lines: str) -> Study:
        study = Study()
        for number, line in enumerate(lines, 1):
            study.write(number, line)
        return study

    def test_a_fault_stands_on_its_line_and_names_what_differs(self) -> None:
        for before, line, marked, words in FAULTS:
            study = self.written(*before, line)
            if not words:
                continue
            with self.subTest(line):
                *others, last = study.snapshot.definitions()
                self.assertTrue(all(one.problem is None for one in others))
                problem = last.problem
                if problem is None:
                    raise AssertionError("nothing is wrong")
                for word in words:
                    self.assertIn(word, problem.message)
                start, end = problem.position
                self.assertTrue(0 <= start < end <= len(line), problem.position)
                if marked:
                    self.assertEqual(marked, line[start:end])

    def test_a_fault_is_found_before_anything_is_computed_in_any_order(self) -> None:
        for before, line, _, words in FAULTS:
            if not words or "is defined" in words[0]:
                continue
            for order in list(permutations((*before, line)))[:6]:
                study = self.written(*order)
                with self.subTest(order):
                    place = order.index(line) + 1
                    self.assertIsInstance(study.snapshot.definition(place).problem, UnitError)

    def test_a_line_that_uses_the_fault_says_whose_it_is(self) -> None:
        for before, line, _, words in FAULTS:
            name = line.split(" =", 1)[0]
            is_named = name.isidentifier() and name != "y" and ";" not in line
            if not words or not is_named or "is defined" in words[0]:
                continue
            study = self.written(*before, line, f"later = 2 {name}")
            with self.subTest(line):
                problem = study.snapshot.definitions()[-1].problem
                self.assertIsNotNone(problem)
                self.assertIn(
                    f"`{name}` has a problem of its own", problem.message if problem else ""
                )

    def test_what_fits_is_no_fault(self) -> None:
        for lines in RIGHT:
            study = self.written(*lines)
            with self.subTest(lines):
                self.assertEqual(
                    [], [one.problem for one in study.snapshot.definitions() if one.problem]
                )
                for name in study.names():
                    try:
                        study.evaluate(name)
                    except UnitError as err:
                        self.fail(err.message)
                    except MathError:
                        continue

    def test_the_same_fault_is_found_in_every_unit_of_its_dimension(self) -> None:
        for lengths, times in ((("m", "km", "ft", "nmi"), ("s", "h", "min", "d")),):
            for length in lengths:
                for time in times:
                    line = f"d = 3 {length} + 2 {time}"
                    problem = self.written(line).snapshot.definition(1).problem
                    with self.subTest(line):
                        self.assertIsInstance(problem, UnitError)
                        message = problem.message if problem else ""
                        self.assertIn("length", message)
                        self.assertIn("time", message)
