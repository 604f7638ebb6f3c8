"""How Alembic runs our migrations: on the connection that ``migrate`` hands over."""

from alembic import context

from axis_path.store.models import Base

context.configure(connection=context.config.attributes["connection"], target_metadata=Base.metadata)
with context.begin_transaction():
    context.run_migrations()
