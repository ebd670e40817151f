"""What follows from a design: openings by depth, placed shapes, sets that know their pairs. Only reads."""
