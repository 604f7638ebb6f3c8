"""Work longer than a request: put in a queue on PostgreSQL, done by a worker beside the web.

``queue.py`` puts in, ``worker.py`` is the process that takes out, ``sweeps.py`` is what it does.
"""

from axis_path.jobs.queue import Queue, work_off
from axis_path.jobs.sweeps import SweepRequest, check_sweep, sweep_dict

__all__ = ["Queue", "SweepRequest", "check_sweep", "sweep_dict", "work_off"]
