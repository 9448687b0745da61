"""The web server: routes by station, messages, error replies, security."""
