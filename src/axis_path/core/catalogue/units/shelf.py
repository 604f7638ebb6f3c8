"""The units of the catalogue: those of the SI and the customary ones."""

from axis_path.core.catalogue.units.entry import Measured, Prefixes, UnitEntry

_DECIMAL = Prefixes.DECIMAL


def _unit(  # noqa: PLR0913 - one for each attribute
    symbol: str,
    names: str,
    measured: Measured,
    definition: str = "",
    *,
    prefixes: Prefixes = Prefixes.NONE,
    others: str = "",
    remark: str = "",
) -> UnitEntry:
    """Return an entry; names and further symbols stand with spaces between them."""
    listed = tuple(names.split())
    return UnitEntry(
        symbol, listed, definition or listed[0], measured, prefixes, tuple(others.split()), remark
    )


_LENGTH = (
    _unit("m", "metre metres meter meters", Measured.LENGTH, prefixes=_DECIMAL),
    _unit("in", "inch inches", Measured.LENGTH),
    _unit("ft", "foot feet", Measured.LENGTH),
    _unit("yd", "yard yards", Measured.LENGTH),
    _unit("mi", "mile miles", Measured.LENGTH),
    _unit("nmi", "nautical_mile nautical_miles", Measured.LENGTH, others="NM"),
    _unit("ftm", "fathom fathoms", Measured.LENGTH, "6 * foot", remark="6 ft"),
    _unit("au", "astronomical_unit astronomical_units", Measured.LENGTH),
    _unit("ly", "light_year light_years", Measured.LENGTH, prefixes=_DECIMAL),
    _unit("Å", "angstrom angstroms", Measured.LENGTH),
)
_AREA = (
    _unit("ha", "hectare hectares", Measured.AREA),
    _unit("acre", "acre acres", Measured.AREA, "43560 * foot ** 2", others="ac"),
)
_VOLUME = (
    _unit("L", "litre litres liter liters", Measured.VOLUME, prefixes=_DECIMAL, others="l"),
    _unit("gal", "gallon gallons", Measured.VOLUME, remark="US"),
    _unit("qt", "quart quarts", Measured.VOLUME, remark="US"),
    _unit("pt", "pint pints", Measured.VOLUME, remark="US"),
    _unit("cup", "cup cups", Measured.VOLUME, remark="US"),
    _unit("fl_oz", "fluid_ounce fluid_ounces", Measured.VOLUME, others="floz", remark="US"),
    _unit("tbsp", "tablespoon tablespoons", Measured.VOLUME, remark="US"),
    _unit("tsp", "teaspoon teaspoons", Measured.VOLUME, remark="US"),
    _unit("gal_UK", "imperial_gallon imperial_gallons", Measured.VOLUME, remark="UK"),
    _unit("pt_UK", "imperial_pint imperial_pints", Measured.VOLUME, remark="UK"),
    _unit("fl_oz_UK", "imperial_fluid_ounce imperial_fluid_ounces", Measured.VOLUME, remark="UK"),
    _unit("bbl", "barrel barrels", Measured.VOLUME, "oil_barrel", remark="of oil, 42 gal"),
)
_MASS = (
    _unit("g", "gram grams gramme grammes", Measured.MASS, prefixes=_DECIMAL),
    _unit("t", "tonne tonnes", Measured.MASS, "metric_ton", prefixes=_DECIMAL),
    _unit("lb", "pound pounds", Measured.MASS, others="lbs"),
    _unit("oz", "ounce ounces", Measured.MASS),
    _unit("st", "stone stones", Measured.MASS),
    _unit("gr", "grain grains", Measured.MASS),
    _unit("ct", "carat carats", Measured.MASS),
    _unit("slug", "slug slugs", Measured.MASS),
    _unit("ton_US", "short_ton short_tons", Measured.MASS, remark="US, 2000 lb"),
    _unit("ton_UK", "long_ton long_tons", Measured.MASS, remark="UK, 2240 lb"),
    _unit(
        "Da",
        "dalton daltons",
        Measured.MASS,
        prefixes=_DECIMAL,
        others="u",
        remark="measured, CODATA 2022",
    ),
)
_TIME = (
    _unit("s", "second seconds", Measured.TIME, prefixes=_DECIMAL, others="sec"),
    _unit("min", "minute minutes", Measured.TIME),
    _unit("h", "hour hours", Measured.TIME, others="hr"),
    _unit("d", "day days", Measured.TIME),
    _unit("week", "week weeks", Measured.TIME, others="wk"),
    _unit("yr", "year years", Measured.TIME, remark="365.25 d"),
    _unit("Hz", "hertz", Measured.TIME, prefixes=_DECIMAL),
)
_SPEED = (
    _unit("kn", "knot knots", Measured.SPEED, remark="1 nmi/h"),
    _unit("mph", "mile_per_hour miles_per_hour", Measured.SPEED),
    _unit("kph", "kilometre_per_hour kilometres_per_hour kilometer_per_hour kilometers_per_hour",
          Measured.SPEED, "kilometer_per_hour"),
)  # fmt: skip
_FORCE = (
    _unit("N", "newton newtons", Measured.FORCE, prefixes=_DECIMAL),
    _unit("lbf", "pound_force", Measured.FORCE),
    _unit("kgf", "kilogram_force", Measured.FORCE),
    _unit("dyn", "dyne dynes", Measured.FORCE),
)
_PRESSURE = (
    _unit("Pa", "pascal pascals", Measured.PRESSURE, prefixes=_DECIMAL),
    _unit("bar", "bar bars", Measured.PRESSURE, prefixes=_DECIMAL),
    _unit("atm", "atmosphere atmospheres", Measured.PRESSURE),
    _unit("psi", "pound_force_per_square_inch", Measured.PRESSURE, "psi"),
    _unit("mmHg", "millimetre_of_mercury millimeter_of_mercury", Measured.PRESSURE,
          "millimeter_Hg"),
    _unit("Torr", "torr", Measured.PRESSURE),
    _unit("inHg", "inch_of_mercury inches_of_mercury", Measured.PRESSURE, "inch_Hg"),
)  # fmt: skip
_ENERGY = (
    _unit("J", "joule joules", Measured.ENERGY, prefixes=_DECIMAL),
    _unit("Wh", "watt_hour watt_hours", Measured.ENERGY, prefixes=_DECIMAL),
    _unit("eV", "electronvolt electronvolts electron_volt electron_volts", Measured.ENERGY,
          prefixes=_DECIMAL),
    _unit("cal", "calorie calories", Measured.ENERGY, prefixes=_DECIMAL, remark="4.184 J"),
    _unit("Btu", "british_thermal_unit british_thermal_units", Measured.ENERGY, others="BTU",
          remark="international"),
    _unit("erg", "erg ergs", Measured.ENERGY),
)  # fmt: skip
_POWER = (
    _unit("W", "watt watts", Measured.POWER, prefixes=_DECIMAL),
    _unit("hp", "horsepower", Measured.POWER, remark="550 ft lbf/s"),
    _unit("hp_M", "metric_horsepower", Measured.POWER, others="PS", remark="75 kgf m/s"),
)
_TEMPERATURE = (
    _unit("K", "kelvin kelvins", Measured.TEMPERATURE, prefixes=_DECIMAL),
    _unit("°C", "celsius degree_celsius degrees_celsius", Measured.TEMPERATURE, "",
          others="degC ℃"),
    _unit("°F", "fahrenheit degree_fahrenheit degrees_fahrenheit", Measured.TEMPERATURE, "",
          others="degF ℉"),
    _unit("°R", "rankine degree_rankine degrees_rankine", Measured.TEMPERATURE, others="degR"),
)  # fmt: skip
_ANGLE = (
    _unit("rad", "radian radians", Measured.ANGLE, prefixes=_DECIMAL),
    _unit("°", "degree degrees", Measured.ANGLE, others="deg"),
    _unit("arcmin", "arcminute arcminutes", Measured.ANGLE),
    _unit("arcsec", "arcsecond arcseconds", Measured.ANGLE),
    _unit("gon", "gon gons gradian gradians", Measured.ANGLE, "grade"),
    _unit("rev", "revolution revolutions turn turns", Measured.ANGLE, "turn"),
    _unit("rpm", "revolution_per_minute revolutions_per_minute", Measured.ANGLE, "rpm"),
    _unit("sr", "steradian steradians", Measured.ANGLE),
)
_ELECTRICITY = (
    _unit("A", "ampere amperes amp amps", Measured.ELECTRICITY, prefixes=_DECIMAL),
    _unit("C", "coulomb coulombs", Measured.ELECTRICITY, prefixes=_DECIMAL),
    _unit("Ah", "ampere_hour ampere_hours", Measured.ELECTRICITY, prefixes=_DECIMAL),
    _unit("V", "volt volts", Measured.ELECTRICITY, prefixes=_DECIMAL),
    _unit("Ω", "ohm ohms", Measured.ELECTRICITY, prefixes=_DECIMAL, others="Ω"),
    _unit("S", "siemens", Measured.ELECTRICITY, prefixes=_DECIMAL),
    _unit("F", "farad farads", Measured.ELECTRICITY, prefixes=_DECIMAL),
    _unit("H", "henry henries henrys", Measured.ELECTRICITY, prefixes=_DECIMAL),
    _unit("Wb", "weber webers", Measured.ELECTRICITY, prefixes=_DECIMAL),
    _unit("T", "tesla teslas", Measured.ELECTRICITY, prefixes=_DECIMAL),
)
_LIGHT = (
    _unit("cd", "candela candelas", Measured.LIGHT, prefixes=_DECIMAL),
    _unit("lm", "lumen lumens", Measured.LIGHT, prefixes=_DECIMAL),
    _unit("lx", "lux", Measured.LIGHT, prefixes=_DECIMAL),
)
_MATTER = (
    _unit("mol", "mole moles", Measured.MATTER, prefixes=_DECIMAL),
    _unit("kat", "katal katals", Measured.MATTER, prefixes=_DECIMAL),
    _unit("Bq", "becquerel becquerels", Measured.MATTER, prefixes=_DECIMAL),
    _unit("Gy", "gray grays", Measured.MATTER, prefixes=_DECIMAL),
    _unit("Sv", "sievert sieverts", Measured.MATTER, prefixes=_DECIMAL),
)
_DATA = (
    _unit("bit", "bit bits", Measured.DATA, prefixes=Prefixes.BINARY),
    _unit("B", "byte bytes", Measured.DATA, prefixes=Prefixes.BINARY),
)

UNITS: tuple[UnitEntry, ...] = (
    *_LENGTH, *_AREA, *_VOLUME, *_MASS, *_TIME, *_SPEED, *_FORCE, *_PRESSURE, *_ENERGY, *_POWER,
    *_TEMPERATURE, *_ANGLE, *_ELECTRICITY, *_LIGHT, *_MATTER, *_DATA,
)  # fmt: skip

#: The prefixes of the SI: symbol, name, and the power of ten.
DECIMAL_PREFIXES = (
    ("Q", "quetta", 30), ("R", "ronna", 27), ("Y", "yotta", 24), ("Z", "zetta", 21),
    ("E", "exa", 18), ("P", "peta", 15), ("T", "tera", 12), ("G", "giga", 9), ("M", "mega", 6),
    ("k", "kilo", 3), ("h", "hecto", 2), ("da", "deca", 1), ("d", "deci", -1), ("c", "centi", -2),
    ("m", "milli", -3), ("µ", "micro", -6), ("n", "nano", -9), ("p", "pico", -12),
    ("f", "femto", -15), ("a", "atto", -18), ("z", "zepto", -21), ("y", "yocto", -24),
    ("r", "ronto", -27), ("q", "quecto", -30),
)  # fmt: skip
#: The prefixes of powers of 1024, which data takes: symbol, name, and the power of two.
BINARY_PREFIXES = (
    ("Ki", "kibi", 10), ("Mi", "mebi", 20), ("Gi", "gibi", 30), ("Ti", "tebi", 40),
    ("Pi", "pebi", 50), ("Ei", "exbi", 60), ("Zi", "zebi", 70), ("Yi", "yobi", 80),
)  # fmt: skip
