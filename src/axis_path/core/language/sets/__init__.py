"""Sets of equations: split into their parts, and read among names that they define themselves."""
