"""Conversations with visitors, in the page and through gateways."""
