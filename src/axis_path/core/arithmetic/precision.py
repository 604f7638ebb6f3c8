"""With how many binary digits balls are computed."""

from __future__ import annotations

import flint

from axis_path.core.threads import COMPUTING


class precision:  # noqa: N801 - it is used like a function
    """Compute with ``bits`` binary digits inside the block; one thread at a time."""

    __slots__ = ("_before", "_bits")

    def __init__(self, bits: int) -> None:
        self._bits = bits

    def __enter__(self) -> None:
        COMPUTING.acquire()
        self._before = flint.ctx.prec
        try:
            flint.ctx.prec = self._bits
        except BaseException:
            COMPUTING.release()
            raise

    def __exit__(self, *_: object) -> None:
        flint.ctx.prec = self._before
        COMPUTING.release()
