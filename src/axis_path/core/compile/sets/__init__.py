"""Sets of equations among the names of a study: their unknowns, their units, their solutions."""
