"""Problems as a science lesson sets them, each solved in three ways and checked by plain arithmetic."""

import math
import unittest
from collections.abc import Callable
from dataclasses import dataclass

from axis_path.core import Study
from axis_path.core.evaluate import Result

G = 9.80665
R = 8.31446261815324
C = 299792458.0


@dataclass(frozen=True)
class Problem:
    """A set of equations, and what some of its unknowns are.

    Attributes:
        equations: in any order.
        answers: an expression of the unknowns, and its value as floats give it.
        bounds: between which values unknowns are sought, where there are several solutions.
    """

    equations: tuple[str, ...]
    answers: dict[str, float]
    bounds: tuple[tuple[str, str, str], ...] = ()


def _lens(f: float, g: float) -> float:
    return 1 / (1 / f - 1 / g)


def _root(function: Callable[[float], float], low: float, high: float) -> float:
    """Return the zero of a function that changes sign once, by bisection."""
    for _ in range(200):
        middle = (low + high) / 2
        low, high = (middle, high) if function(low) * function(middle) > 0 else (low, middle)
    return (low + high) / 2


PROBLEMS: dict[str, Problem] = {
    "a stone that falls": Problem(
        ("h = 1/2 g_n t^2", "v = g_n t", "h = 45 m"),
        {"t in s": math.sqrt(90 / G), "v in km/h": 3.6 * math.sqrt(90 * G)},
        (("t", "0", "60"),),
    ),
    "a throw to its highest point": Problem(
        ("v_y = v_0 sin b", "H = v_y^2/(2 g_n)", "d = v_0^2 sin(2b)/g_n", "v_0 = 54 km/h", "b = 35°"),
        {"H in m": (15 * math.sin(math.radians(35))) ** 2 / (2 * G),
         "d in m": 225 * math.sin(math.radians(70)) / G},
    ),
    "two resistors beside one another": Problem(
        ("1/Z = 1/R_1 + 1/R_2", "U = Z I", "P = U I", "R_1 = 220 Ω", "R_2 = 0.33 kΩ", "U = 9 V"),
        {"Z in Ω": 132, "I in mA": 9000 / 132, "P in mW": 81000 / 132},
    ),
    "a divider with a load": Problem(
        ("U_1 + U_2 = 12 V", "U_1 = 2 kΩ I", "U_2 = 3 kΩ I_2", "U_2 = 6 kΩ I_3", "I = I_2 + I_3"),
        {"I in mA": 3, "U_2 in V": 6, "I_3 in mA": 1},
    ),
    "gas in a bottle": Problem(
        ("p V = n R_gas T", "n = m_g/M_g", "V = 12 L", "T = 20 °C", "m_g = 2 kg", "M_g = 32 g/mol"),
        {"p in bar": 62.5 * R * 293.15 / 0.012 / 1e5},
    ),
    "water that is mixed": Problem(
        ("m_1 (T_m - T_1) = m_2 (T_2 - T_m)", "m_1 = 3 kg", "m_2 = 1 kg", "T_1 = 15 °C", "T_2 = 75 °C"),
        {"T_m in °C": 30},
    ),
    "a lens": Problem(
        ("1/f_l = 1/g_l + 1/b_l", "B/Q = b_l/g_l", "f_l = 50 mm", "g_l = 2 m", "Q = 30 cm"),
        {"b_l in mm": _lens(50, 2000), "B in mm": 300 * _lens(50, 2000) / 2000},
    ),
    "a pendulum": Problem(
        ("T_p = 2 pi sqrt(l_p/g_n)", "T_p = 2 s", "f_p = 1/T_p"),
        {"l_p in cm": 100 * G / math.pi**2, "f_p in Hz": 0.5},
    ),
    "a satellite": Problem(
        ("v_s^2 = k_e/r_s", "T_s = 2 pi r_s/v_s", "k_e = 398600 km^3/s^2", "T_s = 86164 s"),
        {"r_s in km": (398600 * 86164**2 / (4 * math.pi**2)) ** (1 / 3)},
        (("r_s", "10000 km", "100000 km"), ("v_s", "0", "10 km/s")),
    ),
    "a shock without friction": Problem(
        ("m_a v_a + m_b v_b = m_a u_a + m_b u_b",
         "m_a v_a^2 + m_b v_b^2 = m_a u_a^2 + m_b u_b^2",
         "m_a = 2 kg", "m_b = 3 kg", "v_a = 5 m/s", "v_b = 0 m/s"),
        {"u_a in m/s": -1, "u_b in m/s": 4},
        (("u_b", "0.5", "10"), ("u_a", "-10", "10")),
    ),
    "a rope over a roller": Problem(
        ("F_r - m_k g_n = m_k a_r", "m_l g_n - F_r = m_l a_r", "m_k = 4 kg", "m_l = 6 kg"),
        {"a_r in m/s^2": G / 5, "F_r in N": 4.8 * G},
    ),
    "a ladder": Problem(
        ("H_w = mu_s N_g", "N_g = F_g", "H_w h_l = F_g b_l/2", "h_l = 4 m", "l_l = 5 m", "F_g = 500 N",
         "b_l = sqrt(l_l^2 - h_l^2)"),
        {"mu_s": 3 / 8},
    ),
    "a car that brakes": Problem(
        ("s_b = v_b t_r + v_b^2/(2 a_b)", "s_b = 40 m", "t_r = 1 s", "a_b = 7 m/s^2"),
        {"v_b in km/h": 3.6 * (-7 + math.sqrt(49 + 560))},
        (("v_b", "0", "100"),),
    ),
    "a ship that crosses a stream": Problem(
        ("v_x = v_k sin c + v_c", "v_y = v_k cos c", "v_x = 0 m/s", "v_k = 8 kn", "v_c = 3 kn",
         "t_k = 0.5 nmi/v_y"),
        {"t_k in min": 60 * 0.5 / math.sqrt(55), "c in °": -math.degrees(math.asin(3 / 8))},
        (("c", "-90°", "90°"),),
    ),
    "a buoy that floats": Problem(
        ("rho_w A_b t_b g_n = m_b g_n", "A_b = pi d_b^2/4", "rho_w = 1025 kg/m^3", "d_b = 60 cm",
         "m_b = 85 kg"),
        {"t_b in cm": 100 * 85 / (1025 * math.pi * 0.09)},
    ),
    "light in water": Problem(
        ("n_w = c_0/c_w", "sin a_1 = n_w sin a_2", "n_w = 4/3", "a_1 = 50°"),
        {"c_w in km/s": C * 3 / 4000, "a_2 in °": math.degrees(math.asin(0.75 * math.sin(math.radians(50))))},
        (("a_2", "0", "90°"),),
    ),
    "a capacitor that empties": Problem(
        ("U_c = U_0 exp(-t_c/tau)", "tau = R_c C_c", "R_c = 47 kΩ", "C_c = 100 µF", "U_0 = 12 V",
         "U_c = 3 V"),
        {"t_c in s": 4.7 * math.log(4)},
    ),
    "a hanging rope": Problem(
        ("40 m = 2 k_r sinh(15 m/k_r)", "s_r = k_r cosh(15 m/k_r) - k_r"),
        {"s_r in m": (k := _root(lambda k: 2 * k * math.sinh(15 / k) - 40, 5, 50))
         * (math.cosh(15 / k) - 1)},
        (("k_r", "1", "100"),),
    ),
    "a triangle": Problem(
        ("p^2 + q^2 = w^2", "p + q + w = 30 cm", "p q/2 = 30 cm^2"),
        {"w in cm": 13, "p in cm": 5},
        (("p", "1 cm", "7 cm"), ("q", "1 cm", "20 cm"), ("w", "1 cm", "20 cm")),
    ),
    "a shared bill": Problem(
        ("3 u_1 + 2 u_2 + u_3 = 39", "2 u_1 + 3 u_2 + u_3 = 34", "u_1 + 2 u_2 + 3 u_3 = 26"),
        {"u_1": 9.25, "u_2": 4.25, "u_3": 2.75},
    ),
}  # fmt: skip


def _plain(text: str) -> str:
    """Return a name for what an answer is as a plain number."""
    return f"asked_{text.split()[0]}"


class TextbookTest(unittest.TestCase):
    def test_every_problem_has_its_answer_as_a_line(self) -> None:
        for name, problem in PROBLEMS.items():
            for equations in (problem.equations, problem.equations[::-1]):
                with self.subTest(name):
                    study = self.written(equations, problem)
                    for text, wanted in problem.answers.items():
                        self.assert_value(wanted, study.evaluate(text), text)

    def test_every_problem_has_its_answer_as_a_solution(self) -> None:
        for name, problem in PROBLEMS.items():
            with self.subTest(name):
                if any("°C" in text for text in problem.answers):
                    continue
                low, high = {}, {}
                for bound, least, greatest in problem.bounds:
                    low[bound], high[bound] = least, greatest
                # What is asked for is an unknown too: a plain number of its unit.
                asked = [
                    f"{_plain(text)} = {unknown}" + (f"/(1 {unit})" if unit else "")
                    for text in problem.answers
                    for unknown, _, unit in (text.partition(" in "),)
                ]
                found = Study().solve_system(
                    [*problem.equations, *asked], None, low or None, high or None
                )
                self.assertEqual((1, True), (len(found), found[0].proved), found.note)
                values = found[0].values
                for text, wanted in problem.answers.items():
                    self.assert_value(wanted, values[_plain(text)], text)

    def test_every_answer_stands_in_a_table_and_on_a_curve(self) -> None:
        """A function of a plain number that shifts an answer takes it at 0."""
        for name, problem in PROBLEMS.items():
            study = self.written(problem.equations, problem)
            for text, wanted in problem.answers.items():
                unknown, _, unit = text.partition(" in ")
                if "°" in unit and unit != "°":
                    continue
                with self.subTest(name, text=text):
                    plain = f"{unknown}/(1 {unit})" if unit else unknown
                    study.define(f"line_{unknown}(x) = {plain} + x")
                    table = study.values([f"line_{unknown}"], start=0, stop=1, step=1)
                    first, second = (float(table.columns[f"line_{unknown}"][k]) for k in (0, 1))
                    self.assertAlmostEqual(wanted, first, delta=1e-9 * abs(wanted))
                    self.assertAlmostEqual(wanted + 1, second, delta=1e-9 * abs(wanted + 1))
                    (zero,) = study.zeros(f"line_{unknown}", -abs(wanted) - 1, abs(wanted) + 1)
                    self.assertTrue(zero.proved)
                    self.assertAlmostEqual(-wanted, zero.x, delta=1e-9 * abs(wanted))

    @staticmethod
    def written(equations: tuple[str, ...], problem: Problem) -> Study:
        study = Study()
        study.define("; ".join(equations))
        if problem.bounds:
            bounds = [{"name": n, "low": low, "high": high} for n, low, high in problem.bounds]
            study.apply({"do": "search_between", "id": 1, "bounds": bounds}, None)  # type: ignore[arg-type]
        return study

    def assert_value(self, wanted: float, result: Result, text: str) -> None:
        number = result if result.number is None else result.number
        self.assertEqual("", number.reason, text)
        self.assertAlmostEqual(wanted, float(number.value), delta=1e-9 * abs(wanted), msg=text)
