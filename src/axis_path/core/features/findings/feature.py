"""The feature."""

from axis_path.core.features.feature import Feature, Section
from axis_path.core.features.findings import section
from axis_path.core.features.findings.commands import COMMANDS
from axis_path.core.features.findings.section import SavedQueries

FEATURE = Feature(
    name="findings",
    section=Section(
        SavedQueries,
        names={"queries": "findings"},
        renamed=section.renamed,
        without_line=section.without_line,
    ),
    commands=COMMANDS,
)
