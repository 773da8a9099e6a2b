"""Kinds of place as growers call them: what ground they are, what usually stands over them, what warms them."""
