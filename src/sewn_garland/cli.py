"""The command line: lay a brush on lines, or serve the app."""

from __future__ import annotations

import argparse
import os
import sys
import tempfile
import time
from pathlib import Path

import orjson

from .core.drawing.png import pixels_of, png_from_svg
from .core.drawing.svg import Layer, compact_svg
from .core.drawing.tables import pieces_csv, report
from .core.errors import CoreError, InputError
from .core.measuring.arc_length import measure
from .core.pipeline import cured, lay
from .core.reading.brush_document import read_brush
from .core.reading.svg_lines import lines_from_svg


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
    lay_.add_argument("--arrangement", type=int, metavar="N")
    lay_.set_defaults(run=_lay)
    motif = commands.add_parser("motif", help="make a motif from a file (not built yet)")
    motif.add_argument("rest", nargs=argparse.REMAINDER)
    motif.set_defaults(run=_not_built)
    serve = commands.add_parser("serve", help="serve the app")
    serve.add_argument("--demo", action="store_true", help="make the demo data first, where there is none")
    serve.add_argument("--host", default="127.0.0.1")
    serve.add_argument("--port", type=int, default=8750)
    serve.add_argument("--data", type=Path, metavar="DIR")
    serve.set_defaults(run=_serve)
    return parser


def _not_built(arguments: argparse.Namespace) -> int:
    raise InputError("the motif command is not built yet; bring motifs in through the app's Motif station")


def _lay(arguments: argparse.Namespace) -> int:
    if arguments.pdf is not None:
        raise InputError("--pdf is not built yet; take --out (SVG) or --png", where=str(arguments.pdf))
    if arguments.arrangement is not None:
        raise InputError("--arrangement is not built yet: nothing in a brush is laid at random so far")
    if not 1 <= arguments.dpi <= 10_000:
        raise InputError(f"--dpi must be from 1 to 10000 (came: {arguments.dpi:g})")
    brush = read_brush(arguments.brush)
    page = lines_from_svg(_bytes_of(arguments.lines), where=arguments.lines.name)
    pixels = pixels_of(page.width_mm, page.height_mm, arguments.dpi) if arguments.png else None
    began = time.perf_counter()
    measured = [measure(line) for line in page.lines]
    laid = lay(brush, measured)
    seconds = time.perf_counter() - began
    if arguments.report:
        laid = [cured(brush, line, done) for line, done in zip(measured, laid, strict=True)]
    svg = compact_svg(page.width_mm, page.height_mm, [Layer(brush.repeat, line) for line in laid])
    files = {arguments.out: svg.encode()}
    if pixels:
        files[arguments.png] = png_from_svg(svg, width_px=pixels[0], height_px=pixels[1])
    if arguments.pieces:
        files[arguments.pieces] = pieces_csv(laid).encode()
    if arguments.report:
        files[arguments.report] = orjson.dumps(report(laid, seconds), option=orjson.OPT_INDENT_2)
    _write_all(files)
    return 0


def _bytes_of(path: Path) -> bytes:
    try:
        return path.read_bytes()
    except OSError as error:
        raise InputError(f"it cannot be read ({error.strerror})", where=path.name) from None


def _write_all(files: dict[Path, bytes]) -> None:
    """Write every file beside its place first and then move them in, so that none is half written."""
    parked: list[tuple[str, Path]] = []
    try:
        for path, data in files.items():
            handle, name = tempfile.mkstemp(prefix=f".{path.name}.", dir=path.parent)
            parked.append((name, path))
            with os.fdopen(handle, "wb") as file:
                file.write(data)
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
    from .server.serving import serve  # the web server is loaded only where it is wanted

    return serve(arguments.host, arguments.port, arguments.data, demo=arguments.demo)


if __name__ == "__main__":
    sys.exit(main())
