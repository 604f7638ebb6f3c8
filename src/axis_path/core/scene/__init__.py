"""The picture of a study: what kinds and features contribute, put together."""
