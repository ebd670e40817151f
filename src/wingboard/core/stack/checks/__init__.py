"""The checks of Stack."""
