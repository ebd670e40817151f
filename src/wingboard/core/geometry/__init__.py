"""Thin, named helpers over shapely: rounded shapes, outlines with arcs, sets of shapes that know their pairs."""
