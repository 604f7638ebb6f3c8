"""A request that is not of the form the Bench sends."""


class RequestError(Exception):
    """A part of a request is missing or of the wrong kind; the message is for the student."""

    code = "web.400"

    def __init__(self, message: str = "The request could not be read.") -> None:
        super().__init__(message)
        self.message = message
