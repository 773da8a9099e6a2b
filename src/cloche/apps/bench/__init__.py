"""The bench: what warms and lights the plants that are raised, what heat would buy, how a bench is built."""
