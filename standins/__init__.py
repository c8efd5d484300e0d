"""The simulated outside world; imports the core at most."""
