"""The command line: lay a brush on lines, make a motif, or serve the app."""

from __future__ import annotations

import argparse
import gc
import os
import re
import sys
import tempfile
import time
from collections.abc import Iterable, Mapping
from dataclasses import replace
from pathlib import Path
from typing import Any

import orjson

from .core.assemble import drawing_of, on_page, pieces_list
from .core.drawing.png import pixels_of
from .core.drawing.steps import png_of
from .core.drawing.svg import compact_parts, motif_svg
from .core.drawing.tables import report
from .core.errors import CoreError, InputError
from .core.inspecting.cures import SECONDS, Deadline
from .core.lay import cured, lay
from .core.making.brushes import as_laid
from .core.making.framing import resized, trimmed
from .core.measuring.arc_length import measured_all
from .core.reading.brush_document import read_brush
from .core.reading.svg_lines import lines_from_svg
from .core.reading.svg_motif import motif_from_svg
from .core.values.brush import COLOUR, MOST_ARRANGEMENT
from .workshop.pictures import Preparation, cut_found_in, motif_from_picture, repeat_in


def main(argv: list[str] | None = None) -> int:
    """Run the command line; return the exit status, 0 done or 2 bad input."""
    arguments = _parser().parse_args(argv)
    try:
        return arguments.run(arguments)
    except CoreError as error:
        print(f"sewn-garland: {' '.join(str(error).split())}", file=sys.stderr)
        return 2


class _OneLineParser(argparse.ArgumentParser):
    def error(self, message: str):
        self.exit(2, f"sewn-garland: {message}\n")


def _parser() -> argparse.ArgumentParser:
    parser = _OneLineParser(prog="sewn-garland", description="Lay brushes that repeat a motif along a line.")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    lay_ = commands.add_parser("lay", help="lay a brush on the lines of an SVG")
    lay_.add_argument("--brush", type=Path, required=True, metavar="BRUSH.json|BRUSH.garland")
    lay_.add_argument("--lines", type=Path, required=True, metavar="LINES.svg")
    lay_.add_argument("--out", type=Path, required=True, metavar="OUT.svg")
    lay_.add_argument("--png", type=Path, metavar="OUT.png")
    lay_.add_argument("--dpi", type=float, default=300.0)
    lay_.add_argument("--pdf", type=Path, metavar="OUT.pdf")
    lay_.add_argument("--pieces", type=Path, metavar="PIECES.csv")
    lay_.add_argument("--report", type=Path, metavar="REPORT.json")
    lay_.add_argument("--cures-seconds", type=float, default=SECONDS, metavar="S", help="how long cures may be tried for the report")
    lay_.add_argument("--arrangement", type=int, metavar="N")
    lay_.add_argument("--ink", metavar="#rrggbb")
    lay_.add_argument("--second-ink", metavar="#rrggbb")
    lay_.set_defaults(run=_lay)
    motif = commands.add_parser("motif", help="make a clean motif of an SVG or a picture")
    motif.add_argument("file", type=Path, metavar="FILE")
    motif.add_argument("--out", type=Path, required=True, metavar="OUT.svg")
    motif.add_argument("--region", metavar="X,Y,W,H")
    motif.add_argument("--trim", action="store_true")
    motif.add_argument("--clear", metavar="background|white|#rrggbb")
    motif.add_argument("--tolerance", type=float, metavar="N")
    motif.add_argument("--coverage", choices=("light", "dark"))
    motif.add_argument("--trace", choices=("threshold", "colours"))
    motif.add_argument("--find-repeat", action="store_true")
    motif.add_argument("--find-cut", action="store_true")
    size = motif.add_mutually_exclusive_group()
    size.add_argument("--width-mm", type=float, metavar="N")
    size.add_argument("--dpi", type=float, metavar="N")
    motif.add_argument("--report", type=Path, metavar="REPORT.json")
    motif.set_defaults(run=_motif)
    serve = commands.add_parser("serve", help="serve the app")
    serve.add_argument("--demo", action="store_true", help="make the demo data first, where there is none")
    serve.add_argument("--host", default="127.0.0.1")
    serve.add_argument("--port", type=int, default=8750)
    serve.add_argument("--data", type=Path, metavar="DIR")
    serve.set_defaults(run=_serve)
    return parser


MOST_SECONDS = 3600
FOR_PICTURES = ("region", "clear", "tolerance", "coverage", "trace")


def _motif(arguments: argparse.Namespace) -> int:
    where, data = arguments.file.name, _bytes_of(arguments.file)
    for name, (least, most) in {"width_mm": (0.05, 10_000), "dpi": (1, 10_000), "tolerance": (0, 150)}.items():
        value = getattr(arguments, name)
        if value is not None and not least <= value <= most:
            raise InputError(f"--{name.replace('_', '-')} must be from {least:g} to {most:g} (came: {value:g})")
    try:
        made = _motif_of_svg(arguments, data) if _is_svg(data) else _motif_of_picture(arguments, data)
    except InputError as error:
        raise error if error.where else InputError(error.message, where=where) from None
    motif, frame_px, mm_per_file_px = made
    found: dict[str, Any] = {"repeat_px": None, "repeat_mm": None, "cuts_mm": None, "seam": None}
    length = None
    if arguments.find_repeat:
        length = repeat_in(motif).length_mm
        found["repeat_mm"] = length if mm_per_file_px is not None or frame_px is None else None
        found["repeat_px"] = None if frame_px is None else length / motif.width * frame_px[2]
    if arguments.find_cut:
        cuts, seam = cut_found_in(motif, length_mm=length)
        found["cuts_mm"] = list(cuts)
        found["seam"] = {"mismatch_mm": seam.mismatch_mm, "slope_deg": seam.slope_deg, "delta_e": seam.delta_e}
    told = {
        "size_mm": [motif.width, motif.height], "frame_px": None if frame_px is None else list(frame_px),
        "points": sum(len(s.commands) - s.commands.count("Z") for s in motif.shapes if s.picture is None), **found,
        "left_out": list(motif.left_out),
    }  # fmt: skip
    files: dict[Path, Iterable[bytes]] = {arguments.out: [motif_svg(motif).encode()]}
    if arguments.report:
        files[arguments.report] = [orjson.dumps(told, option=orjson.OPT_INDENT_2)]
    _write_all(files)
    return 0


def _is_svg(data: bytes) -> bool:
    head = data[:512].lstrip(b"\xef\xbb\xbf \t\r\n")
    return head.startswith(b"<")


def _motif_of_svg(arguments: argparse.Namespace, data: bytes):
    for name in FOR_PICTURES:
        if getattr(arguments, name) is not None:
            raise InputError(f"--{name} is for pictures, and this is an SVG; leave it out", where=arguments.file.name)
    motif = motif_from_svg(data, where=arguments.file.name)
    if arguments.trim:
        motif = trimmed(motif, where=arguments.file.name, keep_base=False)
    if arguments.dpi is not None:
        raise InputError("--dpi is for pictures; give --width-mm", where=arguments.file.name)
    if arguments.width_mm is not None:
        motif, told = resized(motif, arguments.width_mm)
        motif = replace(motif, left_out=(*motif.left_out, *told))
    return motif, None, 1.0


def _motif_of_picture(arguments: argparse.Namespace, data: bytes):
    how = Preparation(
        region=_region(arguments.region), clear=_clear(arguments.clear), trim=arguments.trim, coverage=arguments.coverage,
        tolerance=12.0 if arguments.tolerance is None else arguments.tolerance, trace=arguments.trace,
        width_mm=arguments.width_mm, dpi=arguments.dpi,
    )  # fmt: skip
    made = motif_from_picture(data, how, where=arguments.file.name)
    return made.motif, made.frame_px, made.prepared.mm_per_px if made.prepared.scaled else None


def _region(text: str | None) -> tuple[int, int, int, int] | None:
    if text is None:
        return None
    try:
        x, y, w, h = (int(part) for part in text.split(","))
    except ValueError:
        raise InputError(f"--region must be four whole numbers X,Y,W,H in pixels (came: {text[:40]})") from None
    return x, y, w, h


def _clear(text: str | None) -> str | None:
    if text is not None and text not in ("background", "background_and_holes", "white") and not re.fullmatch(r"#[0-9a-fA-F]{6}", text):
        raise InputError(f"--clear must be background, background_and_holes, white or a colour as #rrggbb (came: {text[:40]})")
    return text


def _lay(arguments: argparse.Namespace) -> int:
    if arguments.pdf is not None:
        raise InputError("--pdf is not built yet; take --out (SVG) or --png", where=str(arguments.pdf))
    if not 0 <= arguments.cures_seconds <= MOST_SECONDS:
        raise InputError(f"--cures-seconds must be from 0 to {MOST_SECONDS} (came: {arguments.cures_seconds:g})")
    if not 1 <= arguments.dpi <= 10_000:
        raise InputError(f"--dpi must be from 1 to 10000 (came: {arguments.dpi:g})")
    brush = as_laid(read_brush(arguments.brush))
    if arguments.arrangement is not None:
        if not 0 <= arguments.arrangement <= MOST_ARRANGEMENT:
            raise InputError(f"--arrangement must be a whole number from 0 to {MOST_ARRANGEMENT} (came: {arguments.arrangement})")
        brush = brush.changed({"variants": {"arrangement": arguments.arrangement}})
    brush = brush.changed({"ink": _inks(arguments)})
    page = lines_from_svg(_bytes_of(arguments.lines), where=arguments.lines.name)
    pixels = pixels_of(page.width_mm, page.height_mm, arguments.dpi) if arguments.png else None
    began = time.perf_counter()
    measured = measured_all(page.lines)
    laid = lay(brush, measured)
    seconds = time.perf_counter() - began
    if arguments.report:
        deadline = Deadline(arguments.cures_seconds, time.monotonic)
        laid = [cured(brush, line, done, deadline=deadline) for line, done in zip(measured, laid, strict=True)]
    drawing = drawing_of(page.width_mm, page.height_mm, [item for line in laid for item in on_page(brush.pieces.motifs, line, brush.ink)])
    files: dict[Path, Iterable[bytes]] = {arguments.out: (part.encode() for part in compact_parts(drawing))}
    if arguments.pieces:
        files[arguments.pieces] = [pieces_list([(brush, line) for line in laid]).encode()]
    if arguments.report:
        files[arguments.report] = [orjson.dumps(report(laid, seconds), option=orjson.OPT_INDENT_2)]
    _write_all(files)
    if pixels:  # last, for a picture that fails takes nothing else with it
        _write_all({arguments.png: [png_of(drawing, width_px=pixels[0], height_px=pixels[1])]})
    return 0


def _inks(arguments: argparse.Namespace) -> dict[str, str]:
    """Return the inks that were given, in the keys of a brush document."""
    given = {"ink": arguments.ink, "second_ink": arguments.second_ink}
    for key, value in given.items():
        if value is not None and not re.fullmatch(COLOUR, value):
            raise InputError(f"--{key.replace('_', '-')} must be a colour as #rrggbb (came: {value[:40]})")
    return {key: value for key, value in given.items() if value is not None}


def _bytes_of(path: Path) -> bytes:
    try:
        return path.read_bytes()
    except OSError as error:
        raise InputError(f"it cannot be read ({error.strerror})", where=path.name) from None


def _write_all(files: Mapping[Path, Iterable[bytes]]) -> None:
    """Write every file beside its place first and then move them in, so that none is half written."""
    parked: list[tuple[str, Path]] = []
    try:
        for path, parts in files.items():
            handle, name = tempfile.mkstemp(prefix=f".{path.name}.", dir=path.parent)
            parked.append((name, path))
            with os.fdopen(handle, "wb") as file:
                file.writelines(parts)
            os.chmod(name, 0o666 & ~_umask())
            if path.is_dir():
                raise IsADirectoryError(21, "it is a folder", str(path))
        while parked:
            name, path = parked[0]
            os.replace(name, path)
            parked.pop(0)
    except OSError as error:
        raise InputError(f"it cannot be written ({error.strerror})", where=path.name) from None
    finally:
        for name, _ in parked:
            Path(name).unlink(missing_ok=True)


def _umask() -> int:
    mask = os.umask(0)
    os.umask(mask)
    return mask


def _serve(arguments: argparse.Namespace) -> int:
    gc.disable()  # what is loaded now stays, so looking through it again and again only delays the start
    from .server.serving import serve  # the web server is loaded only where it is wanted

    return serve(arguments.host, arguments.port, arguments.data, demo=arguments.demo)


if __name__ == "__main__":
    sys.exit(main())
