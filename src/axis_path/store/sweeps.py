"""Sweeps that were asked for: how far they are, and what came out."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import timedelta
from enum import StrEnum
from typing import Any

from sqlalchemy import Engine, delete, func, select, update
from sqlalchemy.orm import Session

from axis_path.store.models import SweepRow

#: Results are fetched at once; after so long nobody asks for one.
_STORED_FOR = timedelta(hours=6)


class SweepState(StrEnum):
    """How far a sweep is."""

    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    FAILED = "failed"
    CANCELLED = "cancelled"


@dataclass(frozen=True, slots=True)
class StoredSweep:
    """A sweep with its state.

    Attributes:
        study_id: whose sweep it is.
        document: the study in the state that is asked about.
        order: what to sweep, by names.
        done: how many values of the slider are done.
        result: what came out, once it is done.
        problem: why nothing came out.
    """

    study_id: uuid.UUID
    document: dict[str, Any]
    order: dict[str, Any]
    state: SweepState
    done: int
    result: dict[str, Any] | None
    problem: str


def create_sweep(
    session: Session, study_id: uuid.UUID, document: dict[str, Any], order: dict[str, Any]
) -> uuid.UUID:
    """Keep a sweep that is to be done, and forget old ones."""
    session.execute(delete(SweepRow).where(SweepRow.created_at < func.now() - _STORED_FOR))
    row = SweepRow(
        study_id=study_id, document=document, order=order, state=SweepState.WAITING.value
    )
    session.add(row)
    session.flush()
    return row.id


def load_sweep(session: Session, sweep_id: uuid.UUID) -> StoredSweep | None:
    """Return a sweep; None if there is none."""
    row = session.get(SweepRow, sweep_id)
    if row is None:
        return None
    return StoredSweep(
        row.study_id, row.document, row.order, SweepState(row.state), row.done, row.result,
        row.problem,
    )  # fmt: skip


def go_on(session: Session, sweep_id: uuid.UUID, done: int) -> bool:
    """Note how many values are done; tell whether the sweep is still wanted."""
    active_states = (SweepState.WAITING.value, SweepState.RUNNING.value)
    changed = session.execute(
        update(SweepRow)
        .where(SweepRow.id == sweep_id, SweepRow.state.in_(active_states))
        .values(state=SweepState.RUNNING.value, done=done)
        .returning(SweepRow.id)
    )
    return changed.first() is not None


def finish_sweep(
    session: Session,
    sweep_id: uuid.UUID,
    state: SweepState,
    result: dict[str, Any] | None,
    problem: str,
) -> None:
    """Keep what came out."""
    session.execute(
        update(SweepRow)
        .where(SweepRow.id == sweep_id)
        .values(state=state.value, result=result, problem=problem)
    )


def cancel_sweep(session: Session, study_id: uuid.UUID, sweep_id: uuid.UUID) -> None:
    """Cancel a sweep; one that is done stays done."""
    open_states = (SweepState.WAITING.value, SweepState.RUNNING.value)
    session.execute(
        update(SweepRow)
        .where(
            SweepRow.id == sweep_id,
            SweepRow.study_id == study_id,
            SweepRow.state.in_(open_states),
        )
        .values(state=SweepState.CANCELLED.value, problem="The sweep was cancelled.")
    )


@contextmanager
def sweep_lock(engine: Engine, sweep_id: uuid.UUID) -> Iterator[None]:
    """Hold a lock of the database while a sweep is done.

    The database lets go of it when the process that holds it ends, however it ends.
    """
    with engine.connect() as connection:
        connection.execute(select(func.pg_advisory_lock(_lock_key(sweep_id))))
        # No transaction stays open meanwhile; the lock belongs to the connection.
        connection.commit()
        try:
            yield
        finally:
            connection.execute(select(func.pg_advisory_unlock(_lock_key(sweep_id))))
            connection.commit()


def fail_abandoned_sweeps(session: Session) -> None:
    """Mark the sweeps as failed whose worker has ended; those of other workers go on."""
    running = SweepRow.state == SweepState.RUNNING.value
    for sweep_id in session.scalars(select(SweepRow.id).where(running)).all():
        if session.scalar(select(func.pg_try_advisory_xact_lock(_lock_key(sweep_id)))):
            session.execute(
                update(SweepRow)
                .where(SweepRow.id == sweep_id, running)
                .values(
                    state=SweepState.FAILED.value, problem="The sweep was interrupted. Sweep again."
                )
            )


def _lock_key(sweep_id: uuid.UUID) -> int:
    return sweep_id.int & (2**63 - 1)
