"""A stand-in for a scanner: a folder that is looked into for new scans, with samples of its own.

A real scanner's software can save into the same folder.
"""

from __future__ import annotations

import shutil
from dataclasses import dataclass
from pathlib import Path

from ..core.errors import InputError

ENDINGS = {".png", ".jpg", ".jpeg", ".webp", ".tif", ".tiff"}
MOST_LISTED = 200


@dataclass(frozen=True)
class Scan:
    """A file in the tray; ``at`` is when it was written, in seconds since 1970."""

    name: str
    at: float
    bytes: int


class ScanTray:
    """The folder into which scans come."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder

    def scans(self) -> list[Scan]:
        """List the scans, the newest first; a tray that is not there is empty."""
        if not self.folder.is_dir():
            return []
        found = []
        for file in self.folder.iterdir():
            if file.is_file() and file.suffix.lower() in ENDINGS and not file.name.startswith("."):
                stat = file.stat()
                found.append(Scan(file.name, stat.st_mtime, stat.st_size))
        return sorted(found, key=lambda s: (-s.at, s.name))[:MOST_LISTED]

    def read(self, name: str) -> bytes:
        """Return a scan's bytes; raises InputError when it is not in the tray."""
        if name not in {s.name for s in self.scans()}:
            raise InputError(f"“{name[:60]}” is not in the scan tray any more")
        return (self.folder / name).read_bytes()

    def lay_in(self, file: Path) -> None:
        """Put a file into the tray as a scanner would: whole at once."""
        self.folder.mkdir(parents=True, exist_ok=True)
        parked = self.folder / f".{file.name}"
        shutil.copy(file, parked)
        parked.replace(self.folder / file.name)
