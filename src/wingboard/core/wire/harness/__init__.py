"""Where wires run: their ends in space, looms, plugs, colours, gauges and labels."""
