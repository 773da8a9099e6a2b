"""The seam between the rooms and the core: rows in, plain values out.

`values` are what both sides share; `services` do something with the core. Here instants become hours of the site's standard
time, local days become rows of daily air, and results become dates.
"""
