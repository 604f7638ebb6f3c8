"""The queue of jobs (procrastinate's own tables), and sweeps."""

import sqlalchemy as sa
from alembic import op
from procrastinate.schema import SchemaManager
from sqlalchemy.dialects.postgresql import JSONB, UUID

revision = "2026_11_25_jobs"
down_revision = "2026_11_24_studies"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the tables."""
    # Several commands in one text, with signs of its own: past SQLAlchemy's parameters.
    op.get_bind().connection.cursor().execute(SchemaManager.get_schema())
    op.create_table(
        "sweep",
        sa.Column("id", UUID(as_uuid=True), nullable=False),
        sa.Column("study_id", UUID(as_uuid=True), nullable=False),
        sa.Column("document", JSONB(), nullable=False),
        sa.Column("asked", JSONB(), nullable=False),
        sa.Column("state", sa.Text(), nullable=False),
        sa.Column("done", sa.Integer(), nullable=False),
        sa.Column("result", JSONB(), nullable=True),
        sa.Column("problem", sa.Text(), nullable=False),
        sa.Column(
            "created_at",
            sa.DateTime(timezone=True),
            server_default=sa.func.now(),
            nullable=False,
        ),
        sa.PrimaryKeyConstraint("id", name="pk_sweep"),
        sa.ForeignKeyConstraint(
            ["study_id"], ["study.id"], name="fk_sweep_study_id", ondelete="CASCADE"
        ),
    )
    op.create_index("ix_sweep_created_at", "sweep", ["created_at"])


_FUNCTIONS = """
SELECT format('DROP FUNCTION IF EXISTS %s CASCADE', p.oid::regprocedure)
FROM pg_proc p JOIN pg_namespace n ON n.oid = p.pronamespace
WHERE n.nspname = current_schema() AND p.proname LIKE 'procrastinate%'
"""
_OTHERS = (
    "DROP TABLE IF EXISTS procrastinate_events, procrastinate_periodic_defers, "
    "procrastinate_jobs, procrastinate_workers CASCADE",
    "DROP TYPE IF EXISTS procrastinate_job_status, procrastinate_job_event_type, "
    "procrastinate_job_to_defer_v1, procrastinate_job_to_defer_v2 CASCADE",
)


def downgrade() -> None:
    """Take them away."""
    op.drop_table("sweep")
    cursor = op.get_bind().connection.cursor()
    cursor.execute(_FUNCTIONS)
    for (command,) in cursor.fetchall():
        cursor.execute(command)
    for command in _OTHERS:
        cursor.execute(command)
