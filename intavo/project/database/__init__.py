"""The way to the database; `base` is what Django looks for in here."""
