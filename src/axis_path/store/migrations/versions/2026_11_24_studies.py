"""Studies and their versions."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB, UUID

revision = "2026_11_24_studies"
down_revision = None
branch_labels = None
depends_on = None

_NOW = sa.func.now()


def upgrade() -> None:
    """Make both tables."""
    op.create_table(
        "study",
        sa.Column("id", UUID(as_uuid=True), nullable=False),
        sa.Column("title", sa.Text(), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=_NOW, nullable=False),
        sa.Column("changed_at", sa.DateTime(timezone=True), server_default=_NOW, nullable=False),
        sa.Column("deleted_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("current", sa.Integer(), nullable=False),
        sa.Column("view", JSONB(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_study"),
        sa.CheckConstraint("length(title) BETWEEN 1 AND 200", name="ck_study_title_length"),
    )
    op.create_index("ix_study_changed_at", "study", ["changed_at"])
    op.create_table(
        "study_version",
        sa.Column("id", sa.BigInteger(), sa.Identity(always=True), nullable=False),
        sa.Column("study_id", UUID(as_uuid=True), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("document", JSONB(), nullable=False),
        sa.Column("label", sa.Text(), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=_NOW, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_study_version"),
        sa.UniqueConstraint("study_id", "number", name="uq_study_version_study_id_number"),
        sa.CheckConstraint("number >= 1", name="ck_study_version_number_positive"),
        sa.ForeignKeyConstraint(
            ["study_id"], ["study.id"], ondelete="CASCADE", name="fk_study_version_study_id"
        ),
    )


def downgrade() -> None:
    """Drop both tables."""
    op.drop_table("study_version")
    op.drop_table("study")
