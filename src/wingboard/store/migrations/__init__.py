"""Numbered SQL files, applied in order, each once."""
