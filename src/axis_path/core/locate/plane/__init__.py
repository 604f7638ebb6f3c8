"""Two equations in two unknowns, and curves of any kind that meet on the plane."""
