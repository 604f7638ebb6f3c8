"""A request that is not of the form the Bench sends."""


class RequestError(Exception):
    """A part of a request is missing or wrong.

    Attributes:
        message: a sentence.
        path: of the field that is wrong; empty for the whole.
    """

    code = "web.400"

    def __init__(self, message: str = "The request could not be read.", path: str = "") -> None:
        super().__init__(message)
        self.message = message
        self.path = path
