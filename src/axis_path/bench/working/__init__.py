"""Working as plain data: its lines, their tables and sketches, and row reductions."""
