"""Why a request has no answer although nothing was wrong with it."""

from axis_path.core.wording import Text


class ComputeError(Exception):
    """A request that no worker answered; the message is for the student.

    Attributes:
        code: a fixed word for programs.
        retry_after_s: when it makes sense to try again, in seconds.
    """

    code = "compute"
    message: str = Text("This could not be computed. Try again in a moment.")
    retry_after_s = 1.0

    def __init__(self, message: str = "", *, retry_after_s: float | None = None) -> None:
        super().__init__(message or self.message)
        self.message = message or self.message
        if retry_after_s is not None:
            self.retry_after_s = retry_after_s


class BusyError(ComputeError):
    """Too many requests wait already, or this one waited for as long as it may."""

    code = "compute.busy"
    message = Text("The server is busy. Axis Path will try again.")
    retry_after_s = 2.0


class WorkerDiedError(ComputeError):
    """The worker ended, or was ended because it did not answer in time."""

    code = "compute.died"
    message = Text(
        "This calculation used up the time or memory there is, so it was stopped. "
        "Use smaller numbers or a simpler line."
    )


class GoneError(ComputeError):
    """Nobody waits for the answer any more."""

    code = "compute.gone"
    message = Text("This was stopped.")
