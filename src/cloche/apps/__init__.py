"""The growers’ rooms, in the order of their work: gardens, readings, windows, watch."""
