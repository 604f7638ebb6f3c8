"""What a study can do, one folder for each feature: its edits, its commands and its queries."""
