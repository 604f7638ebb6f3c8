"""What is chosen for a study as a whole: angles, digits, axes, the working."""
