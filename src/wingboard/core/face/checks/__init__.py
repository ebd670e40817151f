"""Checks of this station; each module registers its own."""
