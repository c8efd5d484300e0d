"""What tests do on pages, by the place where it is done."""
