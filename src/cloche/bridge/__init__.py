"""The seam between the rooms and the engine: rows in, plain values out.

`values` are what both sides share; `services` do something with the engine. Here instants become hours of the site's standard
time, local days become rows of daily air, and results become dates.
"""
