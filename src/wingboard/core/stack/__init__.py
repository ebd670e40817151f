"""Stack: what layers, and will they hold?"""
