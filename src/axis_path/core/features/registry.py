"""All features. A new one is a folder, and a line here."""

from axis_path.core.features.axes.feature import FEATURE as AXES
from axis_path.core.features.checks.feature import FEATURE as CHECKS
from axis_path.core.features.data.feature import FEATURE as DATA
from axis_path.core.features.entries.feature import FEATURE as ENTRIES
from axis_path.core.features.equations.feature import FEATURE as EQUATIONS
from axis_path.core.features.families.feature import FEATURE as FAMILIES
from axis_path.core.features.feature import Feature
from axis_path.core.features.findings.feature import FEATURE as FINDINGS
from axis_path.core.features.lines.feature import FEATURE as LINES
from axis_path.core.features.motion.feature import FEATURE as MOTION
from axis_path.core.features.random.feature import FEATURE as RANDOM
from axis_path.core.features.settings.feature import FEATURE as SETTINGS
from axis_path.core.features.sliders.feature import FEATURE as SLIDERS
from axis_path.core.features.tables.feature import FEATURE as TABLES
from axis_path.core.features.units.feature import FEATURE as UNITS
from axis_path.core.features.what_if.feature import FEATURE as WHAT_IF
from axis_path.core.features.working.feature import FEATURE as WORKING

FEATURES: tuple[Feature, ...] = (
    LINES,
    SLIDERS,
    FAMILIES,
    EQUATIONS,
    MOTION,
    SETTINGS,
    AXES,
    CHECKS,
    TABLES,
    FINDINGS,
    DATA,
    WORKING,
    RANDOM,
    ENTRIES,
    UNITS,
    WHAT_IF,
)
#: What features keep in a document.
SECTIONS = tuple(feature.section for feature in FEATURES if feature.section is not None)
