"""Worker processes that answer the Bench and may be ended: whatever a line does costs one answer.

A *template* process has loaded the mathematics once and forks a *worker* whenever one is asked
for; a worker answers one request at a time, within limits of time and memory. The web process
keeps a ``Pool`` of them and ends one that does not answer. Read ``pool.py`` first, then
``worker.py``. ``InProcess`` answers without any process, for tests and tools.
"""

from axis_path.compute.errors import BusyError, ComputeError, GoneError, WorkerDiedError
from axis_path.compute.in_process import InProcess
from axis_path.compute.lease import Caller, Compute, Lease, Limits, Query, Reply, never
from axis_path.compute.pool import Pool
from axis_path.compute.template import Template

__all__ = [
    "BusyError",
    "Caller",
    "Compute",
    "ComputeError",
    "GoneError",
    "InProcess",
    "Lease",
    "Limits",
    "Pool",
    "Query",
    "Reply",
    "Template",
    "WorkerDiedError",
    "never",
]
