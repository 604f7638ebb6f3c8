"""The feature."""

from axis_path.core.features.feature import Feature, Section
from axis_path.core.features.tables import section
from axis_path.core.features.tables.commands import COMMANDS
from axis_path.core.tabulate import TableSpec

FEATURE = Feature(
    name="tables",
    section=Section(TableSpec, "table", renamed=section.renamed),
    commands=COMMANDS,
)
