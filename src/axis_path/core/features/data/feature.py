"""The feature."""

from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.document.data import Data
from axis_path.core.features.data.commands import COMMANDS
from axis_path.core.features.data.plots import Plots
from axis_path.core.features.feature import Feature, SceneRequest, Section


def _scene(snapshot: Snapshot, request: SceneRequest) -> dict[str, Any]:
    """Return the columns that are drawn as points."""
    return {"data": snapshot.query(Plots).drawn(request.window, request.box)}


FEATURE = Feature(
    name="data",
    section=Section(Data),
    commands=COMMANDS,
    scene=_scene,
)
