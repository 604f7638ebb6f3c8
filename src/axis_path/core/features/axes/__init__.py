"""The axes, the grid, the title and the legend of the plane."""
