"""What keeps the application's parts running: the database, the web, the workers, the listener.

It knows nothing of gardens: plain Python, started by `./run`, and the only part that may run as root.
"""
