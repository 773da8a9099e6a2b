"""The rules of the work and their computation.

Pure Python, NumPy and SciPy: no Django, no clock, no network, no files but the tables shipped here, no rounding.
Units inside are SI with degrees Celsius; arrays run with time along axis 0.
"""
