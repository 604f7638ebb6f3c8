"""What a feature is: what it keeps, the commands it takes, and what it adds to the scene."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, Generic, TypeVar

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Handler
from axis_path.core.language import Vocabulary

S = TypeVar("S")
#: A part of the plane: from where to where across, and upward.
Box = tuple[tuple[float, float], tuple[float, float]]


@dataclass(frozen=True, slots=True)
class Section(Generic[S]):
    """What a feature keeps in a document.

    Attributes:
        kind: a frozen dataclass with typed fields, from which the study format, its schema and its
            validation follow; without arguments it is the section of a new study.
        name: of its field in a study file; empty if its own fields stand there by themselves.
        names: the names of these fields in the file where they are others.
        renamed: returns the section after a name of the study was changed to another.
        without_line: returns the section after a line was removed, by its id.
    """

    kind: type[S]
    name: str = ""
    names: Mapping[str, str] = field(default_factory=dict)
    renamed: Callable[[S, Vocabulary, str, str], S] | None = None
    without_line: Callable[[S, int], S] | None = None


@dataclass(frozen=True, slots=True)
class SceneRequest:
    """What a scene is asked for.

    Attributes:
        window: what part of the plane is seen.
        box: a part of the plane within which points of data are chosen.
    """

    window: Window
    box: Box | None = None


@dataclass(frozen=True, slots=True)
class Feature:
    """One thing that a study can do.

    Attributes:
        name: of its folder.
        section: what it keeps; None if it keeps nothing, or only with the lines.
        commands: what carries out each of its commands; ``docs/commands.md`` lists them all.
        scene: returns what it adds to the scene, by the names of its fields; plain data whose
            positions are in tenths of a pixel.
    """

    name: str
    section: Section[Any] | None = None
    commands: Mapping[type[Command], Handler] = field(default_factory=dict)
    scene: Callable[[Snapshot, SceneRequest], dict[str, Any]] | None = None
