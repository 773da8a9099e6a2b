"""Programs that open what strangers made: each runs as a process of its own, with little memory and little time.

Whatever such a file does to its reader, it does to that process. These programs know neither Django nor the engine.
"""
