"""Working: the scratch calculator of a study."""
