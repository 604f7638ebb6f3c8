"""The feature."""

from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.features.checks.commands import COMMANDS
from axis_path.core.features.checks.queries import Checks
from axis_path.core.features.checks.section import SamplingCheck
from axis_path.core.features.feature import Feature, SceneRequest, Section


def _scene(snapshot: Snapshot, request: SceneRequest) -> dict[str, Any]:
    """Return the points of the check, and what they miss."""
    return {"check": snapshot.query(Checks).drawn(request.window)}


FEATURE = Feature(
    name="checks",
    section=Section(SamplingCheck),
    commands=COMMANDS,
    scene=_scene,
)
