"""Giving lines their pins: what pins can do, the solver, dealing them along the loom, remedies where some are short."""
