"""Sets of equations as lines: their names are values that the whole study uses."""

import random
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from axis_path.core import MathError, Study
from axis_path.core.draw import Window
from axis_path.core.errors import CycleError, DomainError, NameTakenError, NoValueError, UnitError
from axis_path.core.features.equations.check import check_solution
from axis_path.core.features.equations.sheets import SetLines, SetSummary
from axis_path.core.kinds.states import States
from axis_path.core.language import latex_line
from axis_path.core.language.sets.split import split_set
from axis_path.core.lines.meaning import Kind

WINDOW = Window((-10.0, 10.0), (-6.5, 6.5), 980, 520)
RAMP = "ramp: W = m g_n; N = W cos a; F = mu N; m = 20 kg; mu = 0.3"
#: Lines with a set, and what its names are; exact forms, or the digits that are known.
VALUES: dict[tuple[str, ...], dict[str, str]] = {
    ("W = m g_n; m = 3 kg",): {"W": "588399/20000 N", "W/m": "196133/20000 m/s²"},
    ("a = 60°", RAMP): {"N": "196133/2000 N", "F": "588399/20000 N", "F/N": "3/10"},
    ("y1 = u^2 - 1; y2 = u; y1 = y2",): {"u": "(1 - √5)/2", "u^2 - y2": "1"},
    ("U = R I; R = 50 Ω", "U = 10 V"): {"I": "1/5 A", "I in mA": "200 mA"},
    ("3p + q/2 = 1; p - q = k", "k = 2"): {"p": "4/7", "q": "-10/7", "k": "2"},
    ("u^2 = 2;", "w = u^3/u + 1"): {"w": "3"},
    ("W = 2 N; m = 20 kg", "h = 5 m; v = h/(2 s)"): {"h": "5 m", "v": "5/2 m/s"},
    ("N = 3 N", "F = W + 0.3 N; W = 2 N"): {"F": "29/10 N"},
    ("c = 2 d", "d = 3 s; s = 4"): {"c": "24"},
}  # fmt: skip
#: The only number that is its own cosine, from published tables.
DOTTIE = "0.73908513321516064165531208767387340401341175890075746496568"


class ValueTest(unittest.TestCase):
    def test_names_of_a_set_are_values_of_the_study(self) -> None:
        for lines, wanted in VALUES.items():
            study = _study(*lines)
            for text, value in wanted.items():
                with self.subTest(lines=lines, text=text):
                    self.assertEqual(value, study.evaluate(text).exact)

    def test_an_unknown_has_as_many_digits_as_anyone_wants(self) -> None:
        study = _study("cos u = u;", "g(x) = x u")
        self.assertEqual(DOTTIE[:52], study.evaluate("u").decimal(55)[:52])
        self.assertTrue(study.evaluate("g(2) - 2cos(u)").decimal(10).startswith("0"))
        # The same number as a solution, on the graph and in a table.
        self.assertEqual(
            DOTTIE[:12], study.solve_system(["cos w = w"])[0].values["w"].decimal(12)[:12]
        )
        self.assertEqual(DOTTIE[:12], _cells(study, "g", 1)[0][:12])
        zero = study.zeros("g", -1, 1)
        self.assertEqual([0.0], [item.x for item in zero])
        (root,) = _study("cos u = u;", "k(x) = x - u").zeros("k", 0, 2)
        self.assertTrue(root.proved)
        self.assertAlmostEqual(float(DOTTIE), root.x, 14)

    @settings(max_examples=40, deadline=None)
    @given(st.integers(0, 10**6))
    def test_a_set_agrees_with_lines_that_say_the_same(self, seed: int) -> None:
        """Chains of definitions, in any order, as one set and as so many lines."""
        drawn = random.Random(seed)  # noqa: S311 - a fixed seed is wanted
        names = [f"n{k}" for k in range(drawn.randrange(2, 7))]
        lines = [f"n0 = {drawn.randrange(1, 9)}"]
        for k, name in enumerate(names[1:], 1):
            before = drawn.choice(names[:k])
            lines.append(f"{name} = {drawn.choice(FORMS).format(before, drawn.randrange(2, 7))}")
        apart = _study(*lines)
        drawn.shuffle(lines)
        together = _study("; ".join(lines))
        for name in names:
            self.assertEqual(apart.evaluate(name).exact, together.evaluate(name).exact, lines)
            self.assertEqual(apart.evaluate(name).decimal(20), together.evaluate(name).decimal(20))

    def test_values_follow_sliders_and_edits(self) -> None:
        """After any edit a study shows what a fresh one with the same lines shows."""
        drawn = random.Random(5)  # noqa: S311 - a fixed seed is wanted
        texts = {
            "a": ["a = {}", "a = {}/7"], "set": ["v^2 = a^2 + {}; w = v a", "w + v = a; w - v = {}",
                                                 "v = a; w = cos w + v/{}"],
            "after": ["p(x) = w x + v", "p(x) = (v - w) x^2"],
        }  # fmt: skip
        study = _study("a = 2", f"v = a; w = {3}", "p(x) = w x + v")
        for _ in range(40):
            line = drawn.choice(study.snapshot.lines)
            kind = ("a", "set", "after")[study.snapshot.index_of(line.id)]
            text = drawn.choice(texts[kind]).format(drawn.randrange(1, 9))
            study.apply({"do": "write", "id": line.id, "text": text}, WINDOW)
            fresh = _study(*(line.text for line in study.snapshot.lines))
            for asked in ("v", "w", "p(2)", "p'(1)"):
                with self.subTest([one.text for one in study.snapshot.lines], asked=asked):
                    self.assertEqual(_shown(fresh, asked), _shown(study, asked))
            self.assertEqual(_cells(fresh, "p", 0), _cells(study, "p", 0))

    def test_the_chosen_solution_is_used_everywhere(self) -> None:
        study = _study("v^2 = 2 g_n h; h = 5 m", "way(t) = v t for 0 s <= t <= 2 s")
        self.assertTrue(study.evaluate("v").decimal(6).startswith("−9.90285"))
        study.apply({"do": "choose_solution", "id": 1, "number": 1}, WINDOW)
        self.assertEqual("9.90285 m/s", study.evaluate("v").decimal(6))
        self.assertEqual("9.90285 m", study.evaluate("way(1 s)").decimal(6))
        again = Study.from_dict(study.to_dict())
        self.assertEqual("9.90285 m", again.evaluate("way(1 s)").decimal(6))
        bounds = [{"name": "v", "low": "0", "high": "36 km/h"}]
        study.apply({"do": "search_between", "id": 1, "bounds": bounds}, WINDOW)
        self.assertEqual(1, _summary(study, 1).count)
        self.assertEqual("9.90285 m/s", study.evaluate("v").decimal(6))
        with self.assertRaises(MathError):
            study.apply({"do": "choose_solution", "id": 1, "number": 1}, WINDOW)
        study.apply({"do": "search_between", "id": 1, "bounds": []}, WINDOW)
        self.assertEqual(2, _summary(study, 1).count)

    def test_solutions_are_put_into_the_equations_of_their_line(self) -> None:
        study = _study("a = 12°", RAMP)
        for name, unit in (("", ""), ("W", "kN"), ("m", "g"), ("F", "lbf")):
            # The units in which values are shown change nothing of what is put in.
            if name:
                study.apply({"do": "show_in", "id": 2, "name": name, "unit": unit}, WINDOW)
            solved = study.snapshot.query(SetLines).solved(2)
            checked = [one for one in check_solution(study.snapshot, solved, 0) if one is not None]
            self.assertEqual(["0"] * 5, [one.residual for one in checked])
            for one in checked:
                self.assertEqual(one.left.decimal(12), one.right.decimal(12), (name, unit))

    def test_values_that_are_solved_for_are_shown_in_other_units(self) -> None:
        study = _study("v^2 = 2 g_n h; h = 5 m; w^3 + w = v t/h; t = 3 s; w = 2 c^2 - c")
        before = dict(_summary(study, 1).values)
        for name, unit, factor in (("v", "km/h", "3.6"), ("h", "cm", "100"), ("t", "ms", "1000")):
            study.apply({"do": "show_in", "id": 1, "name": name, "unit": unit}, WINDOW)
            after = dict(_summary(study, 1).values)
            one, other = (float(text.split()[0].replace("−", "-")) for text in
                          (before[name], after[name]))  # fmt: skip
            self.assertAlmostEqual(one * float(factor), other, delta=abs(other) * 1e-3)
        solved = study.snapshot.query(SetLines).solved(1)
        for place in range(len(solved.values)):
            for put_in in check_solution(study.snapshot, solved, place):
                assert put_in is not None
                self.assertEqual(put_in.left.decimal(12), put_in.right.decimal(12))


#: What a name may be, by another and a number.
FORMS = ("{0} + {1}", "{1}/{0}", "2{0} - {1}", "sqrt({0}^2 + {1})", "{0} cos({1})", "ln(2 + {0}^2)")


class MissingTest(unittest.TestCase):
    def test_a_row_says_what_is_known_unknown_missing_or_contradictory(self) -> None:
        free = _summary(_study("k = 2", "u + v = w; u - w = k"), 2)
        self.assertEqual((("k",), ("u", "v", "w")), (free.known, free.unknown))
        self.assertIn("one equation is missing", free.note)
        self.assertFalse(free.is_sure)
        none = _summary(_study("u + v = 3; u - v = 1; u = 7; w = 2"), 1)
        self.assertIn("equations 1, 2 and 3 contradict each other", none.note)
        redundant = _summary(_study("u + v = 3; u - v = 1; 2u + 2v = 6"), 1)
        self.assertEqual((1, True), (redundant.count, redundant.is_sure))
        self.assertIn("follows from the others", redundant.note)

    def test_a_name_without_a_value_says_why(self) -> None:
        study = _study("u v = 3; u = 1; v = 4", "s(x) = u x", "w = v + 1")
        with self.assertRaisesRegex(DomainError, "have no solution"):
            study.evaluate("u")
        problems = study.snapshot.query(States).state.problems
        self.assertIn("have no solution", problems[2].message)
        self.assertIn("no value", study.snapshot.query(States).state.computed[3])
        unknown = _study("mu_s + v_s = 3;")
        with self.assertRaisesRegex(NoValueError, "The equations do not determine `mu_s`"):
            unknown.evaluate("2 mu_s")
        free = _study("u + v = 3;", "s(x) = u x")
        problem = free.snapshot.definition(2).problem
        self.assertIsInstance(problem, NoValueError)
        self.assertIn("do not determine `u`", problem.message if problem else "")
        gone = _study("a = 3", "v^2 = a; w = 2v", "s(x) = v x")
        gone.apply({"do": "choose_solution", "id": 2, "number": 1}, WINDOW)
        self.assertEqual("√3", gone.evaluate("v").exact)
        gone.apply({"do": "write", "id": 1, "text": "a = 0"}, WINDOW)
        with self.assertRaisesRegex(DomainError, "solution 2 of its equations was chosen"):
            gone.evaluate("w")

    def test_names_that_clash_and_circles_are_refused(self) -> None:
        with self.assertRaises(CycleError):
            _study("W = 3c; q = 1", "c = W/2")
        with self.assertRaises(NameTakenError):
            _study("u + v = 3; u - v = 1", "u + v = 3; u - v = 1")
        with self.assertRaises(UnitError):
            _study("W = 3 kg; W = 2 s")
        # A line that defines a name takes it out of the unknowns of a set.
        study = _study("u + v = 3; u - v = w")
        self.assertEqual(("u", "v", "w"), study.snapshot.definition(1).defines)
        study.define("w = 1")
        self.assertEqual(("u", "v"), study.snapshot.definition(1).defines)
        self.assertEqual("2", study.evaluate("u").exact)

    def test_deleting_a_set_says_who_needed_it(self) -> None:
        study = _study("u + v = 3; u - v = 1", "f(x) = u x", "w = v^2", "g(x) = x")
        label = study.apply({"do": "remove", "id": 1}, WINDOW)
        self.assertEqual("Delete a line, which f and w needed", label)
        self.assertIsInstance(study.snapshot.definition(2).problem, NoValueError)
        self.assertIsNone(study.snapshot.definition(4).problem)

    def test_a_name_of_a_set_is_renamed_in_all_lines(self) -> None:
        study = _study(RAMP, "a = 10°", "p(x) = F x")
        study.rename("F", "force")
        texts = [line.text for line in study.snapshot.lines]
        self.assertIn("force = mu N", texts[0])
        self.assertEqual("p(x) = force x", texts[2])
        with self.assertRaises(NameTakenError):
            study.rename("force", "W")

    def test_a_letter_of_a_name_and_a_unit_is_meant_otherwise_with_one_press(self) -> None:
        for lines, name, before, other, after in (
            (("m = 20 kg; h = 3 m; E = m g_n h",), "h", "3 m", "the name m", "60 kg"),
            (("F = W + 0.3 N; N = W cos(60°); W = 2 N",), "F", "2.3 N", "the newton", "2.3 N"),
            (("F = W + 0.3 N; N = W cos(60°); W = 4 N",), "F", "4.6 N", "the newton", "4.3 N"),
            (("N = 20 N; F = 0.3 N",), "F", "0.3 N", "the name N", "6 N"),
            (("m = 5 s", "v = 10 m/m; w = 2 m"), "w", "2 m", "the name m", "10 s"),
        ):  # fmt: skip
            with self.subTest(lines):
                study = _study(*lines)
                self.assertEqual(before, study.evaluate(name).decimal(6))
                summary = _summary(study, len(lines))
                meaning = next(one for one in summary.meanings if one.other == other)
                texts = [one.text for one in split_set(lines[-1])]
                texts[meaning.equation] = meaning.text
                study.apply({"do": "write", "id": len(lines), "text": "; ".join(texts)}, WINDOW)
                self.assertEqual(after, study.evaluate(name).decimal(6))

    def test_x_and_y_stay_the_letters_of_the_plane(self) -> None:
        study = _study("x + y = 3; x - y = d; d = 1", "f(x) = d x", "x^2 + y^2 = 4")
        self.assertEqual(("x", "2"), _summary(study, 1).values[0])
        self.assertEqual(("d",), study.snapshot.definition(1).defines)
        self.assertIs(Kind.RELATION, study.snapshot.definition(3).kind)
        self.assertEqual("5", study.evaluate("f(5)").exact)

    def test_only_equations_between_semicolons_are_a_set(self) -> None:
        for text in ("f(x) = 1 for x < 0; 2 otherwise", "# a = 1; b = 2", "L = [1; 2]", "a = 1",
                     "a; b", "a < 1; b = 2", "y = x^2 for x > 0; 3 for x < 0"):  # fmt: skip
            with self.subTest(text):
                self.assertEqual((), split_set(text))
        label = split_set("ramp: a = max(1; 2); b = 3;")
        self.assertEqual(["a = max(1; 2)", "b = 3"], [one.text for one in label])
        line = _study("ramp: W = m g_n; m = 3 kg").snapshot.definition(1).line
        self.assertEqual(
            r"\begin{cases} W = m g_{n} \\ m = 3\,\text{kg} \end{cases}",
            latex_line(line, None) if line else "",
        )


def _study(*lines: str) -> Study:
    study = Study()
    for line in lines:
        study.define(line)
    return study


def _summary(study: Study, line_id: int) -> SetSummary:
    summary = study.snapshot.query(SetLines).summary(line_id, 6)
    if summary is None:
        raise AssertionError("no set")
    return summary


def _cells(study: Study, name: str, start: int) -> list[str]:
    try:
        table = study.values([name], start=start, stop=start + 2, step=1)
        return [table.text(name, row, 12) for row in range(3)]
    except MathError as err:
        return [err.message]


def _shown(study: Study, text: str) -> str:
    try:
        return study.evaluate(text).decimal(12)
    except MathError as err:
        return err.message
