"""Numbers to geometry: paths, ticks and labels as plain dataclasses that templates only print.

Knows neither Django nor the engine; numbers come in ready for the page, in the person's unit where they are written.
"""
