"""${message}."""

import sqlalchemy as sa
from alembic import op

revision = ${repr(up_revision)}
down_revision = ${repr(down_revision)}
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the change."""
    ${upgrades if upgrades else "pass"}


def downgrade() -> None:
    """Take it back."""
    ${downgrades if downgrades else "pass"}
