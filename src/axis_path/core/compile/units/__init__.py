"""What the lines of a study measure, and expressions in base units of the SI."""
