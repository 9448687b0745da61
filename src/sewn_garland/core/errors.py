"""Errors of the core.

CoreError
├── InputError (also ValueError)        the user can mend it: says what, where, and what to do
│   └── LimitError                      a number or a size beyond what is allowed
└── NumericError (also ArithmeticError) our own failure: a computation that did not settle
"""

from __future__ import annotations


class CoreError(Exception):
    """Base of every error the core raises on purpose."""


class InputError(CoreError, ValueError):
    """Report input that cannot be used, in one sentence that names the place."""

    def __init__(self, message: str, *, where: str = "") -> None:
        super().__init__(f"{where}: {message}" if where else message)
        self.message = message
        self.where = where


class LimitError(InputError):
    """Report a size or count beyond the stated limit."""


class NumericError(CoreError, ArithmeticError):
    """Report a computation that did not settle."""
