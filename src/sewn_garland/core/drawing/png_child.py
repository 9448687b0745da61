"""The child process: SVG on standard input, PNG on standard output, within fixed limits.

Run as a script of its own, so it imports nothing of this package.
"""

import resource
import sys

MEMORY_BYTES = 4 * 1024**3
CPU_SECONDS = 110


def main() -> None:
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    resource.setrlimit(resource.RLIMIT_CPU, (CPU_SECONDS, CPU_SECONDS))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    import resvg_py

    svg = sys.stdin.buffer.read().decode()
    sys.stdout.buffer.write(bytes(resvg_py.svg_to_bytes(svg_string=svg, skip_system_fonts=True, dpi=96)))


if __name__ == "__main__":
    main()
