"""All that is kept of a study, and the open study format."""
