"""Commands of random numbers."""

from __future__ import annotations

from typing import Annotated

from msgspec import Meta

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.document.random_seed import RandomSeed
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited, Handler


class DrawAgain(Command, frozen=True, tag="draw_again"):
    """Draw all random numbers again, from another seed."""

    seed: Annotated[int, Meta(ge=0, le=2**31 - 1)]


def _draw_again(snapshot: Snapshot, command: DrawAgain, _window: Window) -> Edited:
    return snapshot.with_section(RandomSeed(command.seed)), "Draw again"


COMMANDS: dict[type[Command], Handler] = {DrawAgain: _draw_again}
