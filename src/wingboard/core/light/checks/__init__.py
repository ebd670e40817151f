"""The checks of Light."""
