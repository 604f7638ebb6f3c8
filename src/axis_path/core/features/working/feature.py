"""The feature."""

from axis_path.core.features.feature import Feature, Section
from axis_path.core.features.working import section
from axis_path.core.features.working.commands import COMMANDS
from axis_path.core.features.working.section import Working

FEATURE = Feature(
    name="working",
    section=Section(Working, names={"lines": "working"}, renamed=section.renamed),
    commands=COMMANDS,
)
