"""Small stand-ins for outside devices, which ship with the app."""
