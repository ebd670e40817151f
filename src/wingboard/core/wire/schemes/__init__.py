"""The ways to read and drive what is on the panel: one module a way."""
