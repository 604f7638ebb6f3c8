"""All that is stored of a study, and the open study format."""
