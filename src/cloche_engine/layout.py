"""How a stored forecast is laid out: what the pages must know to read it, without the weight of computing one."""

MEMBERS = 40
"""Courses of weather and ground that every probability counts."""
BAND = (0.1, 0.5, 0.9)
"""Quantiles of everything that is told as a band: eight times in ten it lies between the outer two."""
FIELD_STEP_H = 2
"""Hours between two columns of the field of soil by depth."""
PAST_D = 60
"""Days before its own from which a forecast reads the weather, the readings and what was done to the place."""
NEAR_PAST_D = 21
"""Days before its own that a forecast tells by the hour."""
PROFILE_M = (0.0, 0.03, 0.06, 0.10, 0.15, 0.22, 0.32, 0.45)
"""Depths at which the ground under a cover is told for drawing."""
SANDBOX_M = (0.01, 0.05, 0.10)
"""Depths that the sandbox draws."""
