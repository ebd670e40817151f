"""Light: will every legend read at night?"""
