"""A request that is not of the form the Bench sends."""

from axis_path.bench import messages


class RequestError(Exception):
    """A part of a request is missing or wrong.

    Attributes:
        message: a sentence.
        path: of the field that is wrong; empty for the whole.
    """

    code = "web.400"

    def __init__(self, message: str = messages.REQUEST_COULD_NOT_READ, path: str = "") -> None:
        super().__init__(message)
        self.message = message
        self.path = path
