"""What can be, in canonical units: the core's guards, for those who read files that were not typed."""

from cloche.core.quantities import AIR_C, DEPTH_M, RAIN_MM, SNOW_M, SOIL_C, SPACING_M, WIND_M_S

__all__ = ["AIR_C", "DEPTH_M", "RAIN_MM", "SNOW_M", "SOIL_C", "SPACING_M", "WIND_M_S"]
