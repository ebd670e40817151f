"""Carrying out commands, one module a subject; each registers its own with :func:`steps.carry_out`."""
