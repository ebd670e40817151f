"""The record: what a design holds, the commands that change it, and what follows from it."""
