"""The feature."""

from axis_path.core.features.checks import section
from axis_path.core.features.checks.commands import COMMANDS
from axis_path.core.features.checks.section import SamplingCheck
from axis_path.core.features.feature import Feature, Section

FEATURE = Feature(
    name="checks",
    section=Section(SamplingCheck, section.to_fields, section.from_fields),
    commands=COMMANDS,
)
