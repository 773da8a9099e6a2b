"""Air, sun and the years behind the coming weeks."""
