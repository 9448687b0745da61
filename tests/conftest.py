"""What holds for all tests."""

from hypothesis import settings

settings.register_profile("unhurried", settings(), deadline=None)  # a loaded machine is slow, which is no fault
settings.load_profile("unhurried")
