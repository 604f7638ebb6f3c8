"""Constants of nature and of the trade, with unit, uncertainty and source."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

from axis_path.core.catalogue.units import Factor, UnitProduct, read_unit

_CODATA = "CODATA 2022"
_SI = "SI, exact by definition"
_LIGHT, _PLANCK = Fraction(299792458), Fraction("6.62607015e-34")
_CHARGE, _BOLTZMANN = Fraction("1.602176634e-19"), Fraction("1.380649e-23")
_AVOGADRO = Fraction("6.02214076e23")


@dataclass(frozen=True)
class PhysicalConstant:
    """A quantity that has a name of its own.

    Attributes:
        name: as it is typed; a study may define the name itself, which then wins.
        meaning: what it is.
        value: its number in ``unit``, a fraction times a power of π.
        unit_text: its unit, as it can be typed; empty for a plain number.
        uncertainty: its standard uncertainty in ``unit``; 0 for an exact one.
        source: where the value comes from.
        text: the number as it is published, with all its digits; empty for one that is computed.
    """

    name: str
    meaning: str
    value: Factor
    unit_text: str
    uncertainty: Fraction
    source: str
    text: str = ""

    @cached_property
    def unit(self) -> UnitProduct:
        """Return its unit."""
        unit = read_unit(self.unit_text) if self.unit_text else UnitProduct(())
        if unit is None:
            raise ValueError(f"{self.unit_text} is no unit")
        return unit

    @property
    def shown(self) -> str:
        """Return the value with its unit, as it is printed; an exact one with all its digits."""
        number = float(self.value.number) * math.pi**self.value.pi
        digits = self.text or f"{number:.12g}"
        mantissa, _, power = digits.partition("e")
        text = f"{mantissa}·10^{int(power)}".replace("-", "−") if power else mantissa
        return f"{text} {self.unit.printed}".rstrip()

    @property
    def relative_uncertainty(self) -> str:
        """Return the uncertainty as a share of the value, in words of two digits."""
        share = float(self.uncertainty / abs(self.value.number))
        mantissa, _, power = f"{share:.1e}".partition("e")
        return f"{mantissa}·10^{int(power)}".replace("-", "−")

    @property
    def is_exact(self) -> bool:
        """Check whether the value is exact."""
        return not self.uncertainty


def _exact(
    name: str, meaning: str, value: Fraction | str, unit: str, source: str = _SI, pi: int = 0
) -> PhysicalConstant:
    return PhysicalConstant(
        name, meaning, Factor(Fraction(value), pi), unit, Fraction(0), source
    )  # fmt: skip


def _measured(
    name: str, meaning: str, value: str, uncertainty: str, unit: str
) -> PhysicalConstant:  # fmt: skip
    return PhysicalConstant(
        name, meaning, Factor(Fraction(value)), unit, Fraction(uncertainty), _CODATA, value
    )


PHYSICAL_CONSTANTS: dict[str, PhysicalConstant] = {
    constant.name: constant
    for constant in (
        _exact("g_n", "standard acceleration of gravity, in free fall", "9.80665", "m/s^2",
               "3rd CGPM 1901, by convention"),
        _exact("c_0", "speed of light in vacuum", _LIGHT, "m/s"),
        _measured("G_N", "Newtonian constant of gravitation", "6.67430e-11", "1.5e-15",
                  "m^3/(kg s^2)"),
        _exact("h_P", "Planck constant", _PLANCK, "J s"),
        _exact("h_bar", "reduced Planck constant, h_P/(2π)", _PLANCK / 2, "J s", pi=-1),
        _exact("k_B", "Boltzmann constant", _BOLTZMANN, "J/K"),
        _exact("N_A", "Avogadro constant", _AVOGADRO, "1/mol"),
        _exact("R_gas", "molar gas constant, N_A k_B", _AVOGADRO * _BOLTZMANN, "J/(mol K)"),
        _exact("e_0", "elementary charge", _CHARGE, "C"),
        _exact("F_A", "Faraday constant, N_A e_0", _AVOGADRO * _CHARGE, "C/mol"),
        _exact("sigma_SB", "Stefan–Boltzmann constant",
               2 * _BOLTZMANN**4 / (15 * _PLANCK**3 * _LIGHT**2), "W/(m^2 K^4)", pi=5),
        _measured("epsilon_0", "electric constant, permittivity of vacuum", "8.8541878188e-12",
                  "1.4e-21", "F/m"),
        _measured("mu_0", "magnetic constant, permeability of vacuum", "1.25663706127e-6",
                  "2.0e-16", "N/A^2"),
        _measured("Z_0", "impedance of vacuum", "376.730313412", "5.9e-8", "Ω"),
        _exact("R_K", "von Klitzing constant, h_P/e_0^2", _PLANCK / _CHARGE**2, "Ω"),
        _exact("K_J", "Josephson constant, 2e_0/h_P", 2 * _CHARGE / _PLANCK, "Hz/V"),
        _exact("phi_0", "magnetic flux quantum, h_P/(2e_0)", _PLANCK / (2 * _CHARGE), "Wb"),
        _measured("alpha_0", "fine-structure constant", "7.2973525643e-3", "1.1e-12", ""),
        _measured("R_inf", "Rydberg constant", "10973731.568157", "1.2e-5", "1/m"),
        _measured("a_B", "Bohr radius", "5.29177210544e-11", "8.2e-21", "m"),
        _measured("mu_B", "Bohr magneton", "9.2740100657e-24", "2.9e-33", "J/T"),
        _measured("mu_N", "nuclear magneton", "5.0507837393e-27", "1.6e-36", "J/T"),
        _measured("m_e", "mass of the electron", "9.1093837139e-31", "2.8e-40", "kg"),
        _measured("m_p", "mass of the proton", "1.67262192595e-27", "5.2e-37", "kg"),
        _measured("m_n", "mass of the neutron", "1.67492750056e-27", "8.5e-37", "kg"),
        _measured("m_u", "atomic mass constant", "1.66053906892e-27", "5.2e-37", "kg"),
        _measured("r_e", "classical electron radius", "2.8179403205e-15", "1.3e-24", "m"),
        _measured("lambda_C", "Compton wavelength of the electron", "2.42631023538e-12",
                  "7.6e-22", "m"),
        _exact("p_atm", "standard atmosphere", "101325", "Pa", "10th CGPM 1954, by convention"),
        _exact("T_ice", "temperature of melting ice at standard pressure", "273.15", "K",
               "by convention"),
        _exact("V_gas", "molar volume of an ideal gas at T_ice and p_atm",
               _AVOGADRO * _BOLTZMANN * Fraction("273.15") / 101325, "m^3/mol"),
    )
}  # fmt: skip
