"""The visitor's script on pages that others have published: `make hosts`."""
