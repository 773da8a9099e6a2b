"""Maintenance: periodic work, health checks and the system status pages."""
