"""Units in the language: what is read as one, exact conversions, dimensions and their errors."""

import subprocess
import sys
import unittest
from fractions import Fraction
from functools import cache
from pathlib import Path
from typing import Any

import pint
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.constants import physical_constants

from axis_path.core import MathError, Study
from axis_path.core.catalogue.physics import PHYSICAL_CONSTANTS
from axis_path.core.catalogue.units import UNITS, Prefixes, UnitProduct, read_unit, unit_of
from axis_path.core.dimensions import described
from axis_path.core.errors import UnitError, UnknownNameError
from axis_path.core.evaluate import ResultKind
from axis_path.core.language import Vocabulary, plain, read_expression
from axis_path.core.language.tree import Quantity
from axis_path.core.language.walk import walk

ROOT = Path(__file__).resolve().parent.parent.parent
#: Conversions from the SI Brochure, NIST SP 811 and the laws that define customary units.
CONVERSIONS = {
    "5 ft in m": "381/250 m",
    "1 in in mm": "127/5 mm",
    "1 mi in km": "25146/15625 km",
    "1 nmi in m": "1852 m",
    "90 km/h in m/s": "25 m/s",
    "1 kn in km/h": "463/250 km/h",
    "1 lb in kg": "45359237/100000000 kg",
    "1 lbf in N": "8896443230521/2000000000000 N",
    "1 psi in Pa": "8896443230521/1290320000 Pa",
    "1 atm in kPa": "4053/40 kPa",
    "1 hp in W": "37284993579113511/50000000000000 W",
    "5 kW h in MJ": "18 MJ",
    "1 kWh in J": "3600000 J",
    "1 gal in L": "473176473/125000000 L",
    "1 gal_UK in L": "454609/100000 L",
    "1 acre in m^2": "316160658/78125 m²",
    "20 °C in °F": "68 °F",
    "-40 °F in °C": "-40 °C",
    "0 K in °C": "-5463/20 °C",
    "300 K in °C": "537/20 °C",
    "1 eV in J": "801088317/5000000000000000000000000000 J",
    "1 GiB in MB": "16777216/15625 MB",
    "100 Mbit/s in MB/s": "25/2 MB/s",
    "30° in rad": "(π/6) rad",
    "100 rpm in rad/s": "(10π/3) rad/s",
    "5 ft 3 in in cm": "8001/50 cm",
    "1 h 30 min in s": "5400 s",
    "3/4 kg in g": "750 g",
    "100 km / 2 h in km/h": "50 km/h",
    "1 J/(kg K) in kJ/(kg °C)": "1/1000 kJ/(kg °C)",
    "sqrt(2) m in cm": "100√2 cm",
    "2 m · 3 m in cm^2": "60000 cm²",
    "3 µF in nF": "3000 nF",
    "3 um in nm": "3000 nm",
    "2 megajoule in kilowatt_hours": "5/9 kWh",
}  # fmt: skip
KNOWN = Vocabulary(frozenset({"f", "g", "h"}), frozenset({"m", "a"}), frozenset({"x", "t"}))


@cache
def registry() -> "pint.UnitRegistry[Any]":
    """Return the definitions of pint with exact fractions."""
    return pint.UnitRegistry(non_int_type=Fraction, cache_folder=None)


class CatalogueTest(unittest.TestCase):
    def test_definitions_are_those_of_pint(self) -> None:
        tool = [sys.executable, str(ROOT / "tools/refresh-units"), "--check"]
        done = subprocess.run(tool, cwd=ROOT, env={"PYTHONPATH": "src"}, check=False)
        self.assertEqual(0, done.returncode, "run tools/refresh-units")

    def test_every_symbol_and_prefix_reads_back(self) -> None:
        for entry in UNITS:
            for text in (entry.symbol, *entry.others, *entry.names):
                self.assertEqual(unit_of(entry), read_unit(text).parts[0][0], text)  # type: ignore[union-attr]
            if entry.prefixes is not Prefixes.NONE:
                kilo = read_unit(f"k{entry.symbol}")
                assert kilo is not None
                self.assertEqual(1000 * unit_of(entry).factor.number, kilo.factor.number)  # type: ignore[union-attr]
                self.assertEqual(kilo, read_unit(f"kilo{entry.names[0]}"))

    def test_constants_are_those_of_codata(self) -> None:
        published = {
            "G_N": "Newtonian constant of gravitation", "c_0": "speed of light in vacuum",
            "h_P": "Planck constant", "h_bar": "reduced Planck constant",
            "k_B": "Boltzmann constant", "N_A": "Avogadro constant", "e_0": "elementary charge",
            "R_gas": "molar gas constant", "F_A": "Faraday constant",
            "sigma_SB": "Stefan-Boltzmann constant", "epsilon_0": "vacuum electric permittivity",
            "mu_0": "vacuum mag. permeability", "Z_0": "characteristic impedance of vacuum",
            "R_K": "von Klitzing constant", "K_J": "Josephson constant",
            "phi_0": "mag. flux quantum", "alpha_0": "fine-structure constant",
            "R_inf": "Rydberg constant", "a_B": "Bohr radius", "mu_B": "Bohr magneton",
            "mu_N": "nuclear magneton", "m_e": "electron mass", "m_p": "proton mass",
            "m_n": "neutron mass", "m_u": "atomic mass constant",
            "r_e": "classical electron radius", "lambda_C": "Compton wavelength",
            "g_n": "standard acceleration of gravity", "p_atm": "standard atmosphere",
            "V_gas": "molar volume of ideal gas (273.15 K, 101.325 kPa)",
        }  # fmt: skip
        for name, title in published.items():
            value, unit, uncertainty = physical_constants[title]
            constant = PHYSICAL_CONSTANTS[name]
            ours = Study().evaluate(name)
            self.assertAlmostEqual(1, ours.value / value, places=14, msg=name)
            self.assertEqual(uncertainty, float(constant.uncertainty), name)
            known = read_unit(unit.replace("ohm", "Ω").replace("mag.", "")) if unit else None
            if known is not None:
                self.assertEqual(known.dimension, constant.unit.dimension, name)


class ConversionTest(unittest.TestCase):
    def test_published_conversions_are_exact(self) -> None:
        study = Study()
        for text, exact in CONVERSIONS.items():
            with self.subTest(text):
                result = study.evaluate(text)
                self.assertEqual(exact, result.exact)
                self.assertIs(ResultKind.QUANTITY, result.kind)
                again = study.evaluate(exact)
                self.assertAlmostEqual(result.value, again.value, places=14)
                self.assertIn(again.unit, (result.unit, ""))

    @settings(max_examples=150, deadline=None)
    @given(st.data())
    def test_any_two_units_of_one_dimension_convert_as_in_pint(self, data: st.DataObject) -> None:
        entries = [one for one in UNITS if not unit_of(one).factor.pi and not unit_of(one).offset]
        one = data.draw(st.sampled_from(entries))
        alike = [o for o in entries if unit_of(o).dimension == unit_of(one).dimension]
        other = data.draw(st.sampled_from(alike))
        number = data.draw(st.fractions(-1000, 1000, max_denominator=40))
        given_text = f"({number}) {one.names[0]} in {other.symbol}"
        ours = Study().evaluate(given_text)
        quantity = registry().parse_expression(one.definition)
        wanted = (number * quantity / registry().parse_expression(other.definition)).to_base_units()
        self.assertEqual(Fraction(wanted.magnitude), ours.rational, given_text)

    def test_the_shown_unit_follows_from_what_is_written(self) -> None:
        shown = {
            "12 kg g_n": "N", "3 N 2 m": "J", "3 kW 2 h": "kW h", "90 km/h (30 min)": "km",
            "5 ft + 3 in": "ft", "(3 km)^2": "km^2", "5 N/(2 m^2)": "Pa", "5 A (3 Ω)": "V",
            "5 GB/(20 s)": "GB/s", "5 km/2 m": "", "R_gas (20 °C)/(1 mol)": "J/mol^2",
            "2 rad/s 3 m": "m/s", "sqrt(2 (3 m) g_n)": "m/s", "3 J in N m": "N m", "5 N m": "N m",
            "mean([1 km, 3 km])": "km", "sd([20 °C, 30 °C])": "K", "atan(1 m/(1 m)) 0 + 2": "",
            "variance([1 m, 3 m])": "m^2", "cross([1 m, 0 m, 0 m], [0 N, 1 N, 0 N])": "J",
        }  # fmt: skip
        for text, unit in shown.items():
            self.assertEqual(unit, Study().evaluate(text).unit, text)
        force = Study().evaluate("12 kg g_n")
        self.assertEqual("kg m s^-2", force.dimension)
        self.assertEqual("117.6798 N", force.decimal())
        self.assertEqual("588399/5000 N", force.exact)
        self.assertEqual("(3 + 4i) Ω", Study().evaluate("(3 + 4i) Ω").exact)

    @settings(max_examples=60, deadline=None)
    @given(st.data())
    def test_results_do_not_depend_on_the_units_they_are_written_in(
        self, data: st.DataObject
    ) -> None:
        lengths, times = ("m", "ft", "km", "nmi"), ("s", "min", "h")

        def quantity(units: tuple[str, ...]) -> tuple[str, str]:
            number = data.draw(st.integers(1, 90))
            unit = read_unit(data.draw(st.sampled_from(units)))
            assert unit is not None
            assert unit.factor is not None
            base = "m" if units is lengths else "s"
            return f"({number} {unit.symbol})", f"({number * unit.factor.number}) {base}"

        (a, a_base), (b, b_base), (t, t_base) = map(quantity, (lengths, lengths, times))
        form = data.draw(
            st.sampled_from(
                (
                    "{0} + {1}", "{0} {1}/({2})", "sqrt(({0})^2 + ({1})^2)", "max({0}, {1}) - {1}",
                    "({0} - {1})/({2})^2", "sin({0}/({1})) {2}", "radius({0}, {1}) {2}",
                )
            )
        )  # fmt: skip
        one, other = (form.format(*parts) for parts in ((a, b, t), (a_base, b_base, t_base)))
        study = Study()
        self.assertIsInstance(study.evaluate(f"({one}) = ({other})").value, bool | float, one)
        difference = study.evaluate(f"({one}) - ({other})")
        self.assertEqual("0", (difference.number or difference).decimal(), one)


class ReadingTest(unittest.TestCase):
    def units_in(self, text: str, known: Vocabulary = KNOWN) -> list[str]:
        tree = read_expression(text, known)
        return [node.unit.symbol for node in walk(tree) if isinstance(node, Quantity)]

    def test_a_unit_stands_behind_a_number_and_names_win(self) -> None:
        read = {
            "12 kg": ["kg"], "12 m": [], "12 km": ["km"], "12 metre": ["m"], "5 g": ["g"],
            "5 g x": [], "5 g(x)": [], "12 h": ["h"], "90 km/h": ["km/h"], "1/2 g t^2": [],
            "a kg": ["kg"], "12mm": [], "12 mm": ["mm"], "5kg": ["kg"], "x^2 s": [], "3^2 s": ["s"],
            "(2 + 3) s": ["s"], "9.81 m/s^2": ["m/s^2"], "5 N m": ["N m"], "5 m": [],
            "3 N*s": ["N s"], "3 N * s": ["N"], "5 in": ["in"], "5 in^2": ["in^2"],
            "2 rad": [], "2 rad/s": ["rad/s"], "30 deg": [], "1 h 30 min": ["h", "min"],
            "5 J/kg K": ["J K/kg"], "5 m⁻² s": ["s/m^2"],
        }  # fmt: skip
        for text, units in read.items():
            self.assertEqual(units, self.units_in(text)[: max(len(units), 1)], text)

    def test_unknown_units_offer_the_nearest_spelling(self) -> None:
        for text, near in {
            "5 kmh": "km/h", "5 Kg": "kg", "3 metrs": "metre", "20 celcius": "celsius",
            "v in kmh": "km/h", "3 secnds": "seconds",
        }.items():  # fmt: skip
            with self.subTest(text), self.assertRaises(UnknownNameError) as caught:
                read_expression(text, Vocabulary(values=frozenset({"v"})))
            self.assertIn(caught.exception.suggestion, (near, near + "s"))

    @settings(max_examples=150, deadline=None)
    @given(st.data())
    def test_plain_text_reads_back(self, data: st.DataObject) -> None:
        unit = st.sampled_from(("kg", "m/s^2", "km/h", "J/(kg K)", "°C", "N m", "ft"))
        number = st.integers(1, 99).map(str)
        atom = st.one_of(
            st.builds("{} {}".format, number, unit), st.just("x"), number, st.just("g_n")
        )
        text = data.draw(
            st.recursive(
                atom,
                lambda inner: st.one_of(
                    st.builds("({}) {} ({})".format, inner, st.sampled_from("+-*/"), inner),
                    st.builds("-({})".format, inner),
                    st.builds("({})^2".format, inner),
                    st.builds("sqrt({})".format, inner),
                    st.builds("({} in {})".format, inner, unit),
                    st.builds("({}) {}".format, inner, unit),
                ),
                max_leaves=6,
            )
        )
        known = Vocabulary(variables=frozenset({"x"}))
        tree = read_expression(text, known)
        self.assertEqual(tree, read_expression(plain(tree), known), plain(tree))


class DimensionTest(unittest.TestCase):
    def test_errors_name_both_dimensions_and_their_quotient(self) -> None:
        wrong = {
            "3 s + 12 kg": ["`3 s` is a time (s)", "`12 kg` is a mass (kg)", "kg/s"],
            "12 kg k in N": ["is a mass (kg), not in N, a force", "mass and force differ by m/s²"],
            "sin(3 kg)": ["`sin` needs an angle or a plain number", "a mass (kg)"],
            "exp(2 m)": ["`exp` needs a plain number", "a length (m)"],
            "5 in m": ["`5` has no unit"],
            "2^(3 km)": ["A plain number is needed"],
            "(2 km)^k": ["exponents that are written as numbers"],
            "[1 m, 2 s]": ["a length (m)", "a time (s)", "m/s"],
            "max(3 kg, 2 m)": ["mass and length differ by kg/m"],
            "3 m > 2 s": ["length and time differ by m/s"],
            "20 °C + 5 °C": ["Two temperatures cannot be added", "20 °C + 5 K"],
            "2 * 20 °C": ["A multiple of a temperature"],
            "(25 °C - 20 °C) in °C": ["a difference of temperatures", "Show it in K"],
            "(3 kg) in": [],
            "integral(x kg, x, 0 m, 2 s)": ["a length (m)", "a time (s)"],
        }  # fmt: skip
        study = Study()
        study.set("k", 3)
        for text, parts in wrong.items():
            with self.subTest(text), self.assertRaises(MathError) as caught:
                study.evaluate(text)
            for part in parts:
                self.assertIn(part, str(caught.exception))

    def test_a_name_without_a_unit_may_be_meant_as_a_constant(self) -> None:
        study = Study()
        for text in ("m = 12 kg", "g = 9.81"):
            study.define(text)
        with self.assertRaises(UnitError) as caught:
            study.evaluate("m g in N")
        self.assertIn("did you mean `g_n`, 9.80665 m/s²?", caught.exception.message)
        repair = caught.exception.repair
        assert repair is not None
        self.assertEqual(((2, 3), "g_n"), (repair.position, repair.text))
        self.assertEqual("117.6798 N", study.evaluate("m g_n in N").decimal())

    def test_a_bad_line_hides_no_other_line(self) -> None:
        study = Study()
        for number, text in enumerate(("d = 3 km", "bad = d + 2 kg", "k = 2 d", "w = bad + 1 kg")):
            study.write(number, text)
        problems = [definition.problem for definition in study.definitions()]
        self.assertEqual([False, True, False, True], [problem is not None for problem in problems])
        self.assertIsInstance(problems[1], UnitError)
        self.assertEqual("6 km", study.value("k").decimal())
        study.define("bad = d + 2 m")
        self.assertEqual(1, sum(d.problem is not None for d in study.definitions()))

    def test_dimensions_are_inferred_like_types(self) -> None:
        study = Study()
        for text in (
            "square(q) = q^2", "h(t) = 20 m + 12 m/s t - 1/2 g_n t^2", "twice(u) = 2 square(u)",
            "R: x^2 + y^2 = 36 m^2", "p(q) = q for q < 2 s; 4 s otherwise",
        ):  # fmt: skip
            self.assertIsNone(study.define(text).problem, text)
        self.assertEqual("18 kg²", study.evaluate("twice(3 kg)").decimal())
        self.assertEqual("18", study.evaluate("twice(3)").decimal())
        measures = {
            d.name: [described(part.term.known) for part in d.units.variables]
            for d in study.definitions()
            if d.units is not None
        }
        self.assertEqual(["a time (s)"], measures["h"])
        self.assertEqual(["a length (m)", "a length (m)"], measures["R"])
        with self.assertRaises(UnitError) as caught:
            study.evaluate("h(3 m)")
        self.assertIn("`h` takes a time (s), but `3 m` is a length (m)", str(caught.exception))
        self.assertEqual("m/s", study.evaluate("h'(2 s)").unit)
        self.assertEqual("m s", study.evaluate("integral(h, 0 s, 2 s)").unit)

    def test_only_a_reading_that_fits_is_taken(self) -> None:
        study = Study()
        study.define("m = 12 kg")
        self.assertEqual("60 kg", study.evaluate("5 m").decimal())
        self.assertEqual("2005 m", study.evaluate("5 m + 2 km").decimal())
        self.assertEqual("5 N m", study.evaluate("5 N m").decimal())
        self.assertIsNone(study.define("h(t) = 20 m + 12 m/s t for 0 s <= t <= 5 s").problem)
        self.assertEqual("32 m", study.evaluate("h(1 s)").decimal())

    def test_angles_in_degrees_count_as_radians_where_they_must(self) -> None:
        for unit in ("radians", "degrees"):
            study = Study(unit)
            for text in ("w = 2 rad/s", "r = 3 km", "phi = 30°", "arc = phi r in m"):
                self.assertIsNone(study.define(text).problem, text)
            self.assertEqual("6 km/s", study.evaluate("w r in km/s").decimal())
            self.assertAlmostEqual(1570.796326794897, study.evaluate("arc").value)
            self.assertAlmostEqual(0.9092974268256817, study.evaluate("sin(w (1 s))").value)
            self.assertAlmostEqual(7.38905609893065, study.evaluate("exp(w (1 s))").value)
            self.assertEqual("1/2", study.evaluate("sin(phi)").exact)

    def test_a_study_without_units_is_not_measured(self) -> None:
        study = Study()
        for text in ("f(x) = x^2 - 3", "a = 2.5", "ring: x^2 + y^2 = 4", "phi = 30°"):
            study.define(text)
        analysis = study.snapshot.analysis
        self.assertIsNone(analysis.named_units)
        self.assertEqual({}, analysis.cache.measured)
        self.assertTrue(all(meaning.computed is None for meaning in analysis.meanings))
        study.define("d = 3 m")
        self.assertIsNotNone(study.snapshot.analysis.named_units)
        study.remove("d")
        self.assertIsNone(study.snapshot.analysis.named_units)

    def test_products_of_units_print_as_they_read(self) -> None:
        for text in ("kg m/s^2", "J/(kg K)", "1/s", "m^(1/2)", "kW h"):
            unit = read_unit(text)
            assert unit is not None
            self.assertEqual(text, unit.symbol)
            self.assertEqual(unit, read_unit(unit.printed))
            self.assertEqual(UnitProduct(()), unit / unit)
