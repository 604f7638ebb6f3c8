"""The tables."""

from __future__ import annotations

import uuid
from datetime import datetime
from typing import Any, ClassVar

from sqlalchemy import (
    BigInteger,
    CheckConstraint,
    DateTime,
    ForeignKey,
    Identity,
    Index,
    MetaData,
    Text,
    UniqueConstraint,
    func,
)
from sqlalchemy.dialects.postgresql import JSONB, UUID
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """The base of all tables; constraints are named by one rule."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(table_name)s_%(column_0_N_name)s",
            "uq": "uq_%(table_name)s_%(column_0_N_name)s",
            "ck": "ck_%(table_name)s_%(constraint_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s",
            "pk": "pk_%(table_name)s",
        }
    )
    type_annotation_map: ClassVar[dict[Any, Any]] = {
        dict[str, Any]: JSONB,
        datetime: DateTime(timezone=True),
    }


class StudyRow(Base):
    """A study: its title, and which of its versions is the present one."""

    __tablename__ = "study"
    __table_args__ = (
        CheckConstraint("length(title) BETWEEN 1 AND 200", "title_length"),
        Index("ix_study_changed_at", "changed_at"),
        Index("ix_study_deleted_at", "deleted_at"),
    )

    #: Also its address.
    id: Mapped[uuid.UUID] = mapped_column(UUID(as_uuid=True), primary_key=True, default=uuid.uuid4)
    #: What the student calls it.
    title: Mapped[str] = mapped_column(Text)
    #: When it was made.
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())
    #: When its title or its present version last changed.
    changed_at: Mapped[datetime] = mapped_column(server_default=func.now())
    #: When it was deleted; a deleted study can be brought back.
    deleted_at: Mapped[datetime | None]
    #: The number of the present version; undo lowers it, redo raises it.
    current: Mapped[int] = mapped_column(default=1)
    #: The window, the open tab and the like: kept, but without history.
    view: Mapped[dict[str, Any]] = mapped_column(default=dict)


class SweepRow(Base):
    """A sweep of a finding over a slider, done by a worker."""

    __tablename__ = "sweep"
    __table_args__ = (Index("ix_sweep_created_at", "created_at"),)

    #: Also its address.
    id: Mapped[uuid.UUID] = mapped_column(UUID(as_uuid=True), primary_key=True, default=uuid.uuid4)
    #: The study.
    study_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("study.id", ondelete="CASCADE"))
    #: The study in the state that is asked about, in the open study format.
    document: Mapped[dict[str, Any]]
    #: What to sweep, by names.
    order: Mapped[dict[str, Any]] = mapped_column("asked")
    #: How far it is: one of ``SweepState``.
    state: Mapped[str] = mapped_column(Text)
    #: How many values of the slider are done.
    done: Mapped[int] = mapped_column(default=0)
    #: What came out.
    result: Mapped[dict[str, Any] | None] = mapped_column(JSONB)
    #: Why nothing came out.
    problem: Mapped[str] = mapped_column(Text, default="")
    #: When it was asked for.
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())


class StudyVersionRow(Base):
    """One version of a study; it never changes."""

    __tablename__ = "study_version"
    __table_args__ = (
        UniqueConstraint("study_id", "number"),
        CheckConstraint("number >= 1", "number_positive"),
    )

    #: Known to the page as the version that it shows.
    id: Mapped[int] = mapped_column(BigInteger, Identity(always=True), primary_key=True)
    #: The study.
    study_id: Mapped[uuid.UUID] = mapped_column(ForeignKey("study.id", ondelete="CASCADE"))
    #: Its place in the chain, from 1.
    number: Mapped[int]
    #: The study in the open study format.
    document: Mapped[dict[str, Any]]
    #: Its first lines, for the list of studies.
    overview: Mapped[dict[str, Any]]
    #: What was done to come here, for the undo button.
    label: Mapped[str] = mapped_column(Text)
    #: When it was made.
    created_at: Mapped[datetime] = mapped_column(server_default=func.now())
