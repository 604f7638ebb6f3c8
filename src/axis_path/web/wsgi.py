"""What gunicorn loads."""

import signal
from threading import Thread
from types import FrameType

from axis_path.core.evaluate import make_ready
from axis_path.core.warm import warm_up
from axis_path.web import create_app
from axis_path.web.bench import wire
from axis_path.web.settings import read_settings

app = create_app(read_settings())


def _load() -> None:
    """Load what takes long, so that who comes first need not wait."""
    warm_up()
    make_ready()


Thread(target=_load, daemon=True).start()


def _stop_wires_at(number: signal.Signals) -> None:
    """Let wires end when gunicorn ends the process: it would wait for their threads."""
    before = signal.getsignal(number)

    def stop(_: int, frame: FrameType | None) -> None:
        wire.stop()
        if callable(before):
            before(number, frame)

    signal.signal(number, stop)


for _number in (signal.SIGTERM, signal.SIGINT, signal.SIGQUIT):
    _stop_wires_at(_number)
