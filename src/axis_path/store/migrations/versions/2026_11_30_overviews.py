"""What the list of studies shows is a column of its own: whole documents need not be read."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "2026_11_30_overviews"
down_revision = "2026_11_25_jobs"
branch_labels = None
depends_on = None

#: The first three lines of each document as text; they are typeset with the next change.
_FILL = """
UPDATE study_version SET overview = jsonb_build_object(
    'count', jsonb_array_length(document->'lines'),
    'lines', (
        SELECT coalesce(jsonb_agg(
            jsonb_build_object('text', left(line->>'text', 120), 'mathml', '') ORDER BY place
        ), '[]'::jsonb)
        FROM jsonb_array_elements(document->'lines') WITH ORDINALITY AS lines(line, place)
        WHERE place <= 3
    )
)
"""


def upgrade() -> None:
    """Add the column and fill it."""
    op.add_column("study_version", sa.Column("overview", JSONB(), nullable=True))
    op.execute(_FILL)
    op.alter_column("study_version", "overview", nullable=False)
    op.create_index("ix_study_deleted_at", "study", ["deleted_at"])


def downgrade() -> None:
    """Drop the column."""
    op.drop_index("ix_study_deleted_at", "study")
    op.drop_column("study_version", "overview")
