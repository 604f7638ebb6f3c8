"""What the Bench asks and how it is answered, as plain data: no web, no database.

Everything here computes with what a user typed, so it runs in a worker process that may be ended
(``axis_path.compute``). ``tasks.py`` lists what can be asked; ``job.py`` is one such request.
"""

from axis_path.bench.answer import Answer, FileAnswer, error_answer, json_bytes
from axis_path.bench.errors import RequestError
from axis_path.bench.job import Job
from axis_path.bench.tasks import TASKS, run_task

__all__ = [
    "TASKS",
    "Answer",
    "FileAnswer",
    "Job",
    "RequestError",
    "error_answer",
    "json_bytes",
    "run_task",
]
