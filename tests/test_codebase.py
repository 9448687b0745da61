"""Rules about the code itself."""

from __future__ import annotations

import ast
import re
import subprocess
import sys
from pathlib import Path

import pytest

from looked_at_by import LOOKED_AT_BY

ROOT = Path(__file__).parents[1]
PACKAGE = ROOT / "src" / "sewn_garland"
CORE = PACKAGE / "core"
STAGES = {"reading", "making", "measuring", "spacing", "varying", "placing", "shaping", "colouring", "inspecting", "drawing"}
ABOVE = {"lay", "assemble"}  # where stages meet; nothing else imports several
# what every part of the core below the stages may know besides itself
BELOW = {"errors": set(), "maths": {"errors"}, "values": {"maths", "errors"}, "artwork": {"values", "maths", "errors"}}
FOREIGN = {"flask", "sqlmodel", "sqlalchemy", "waitress", "alembic", "time", "random", "flask_openapi"}
WEB = {"flask", "flask_openapi", "waitress", "werkzeug"}
MOST_LINES = 500
MOST_LINES_A_PART = 100
MOST_WIDE = 140
MOST_LINES_A_FUNCTION = 40  # besides its docstring, and unless a comment above it says why


def imported(file: Path) -> set[str]:
    """Return what a module imports, absolute names with dots."""
    package = list(file.relative_to(PACKAGE.parent).with_suffix("").parts[:-1])
    names = set()
    for node in ast.walk(ast.parse(file.read_text())):
        if isinstance(node, ast.Import):
            names |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            base = package[: len(package) - node.level + 1] if node.level else []
            module = ".".join([*base, *(node.module or "").split(".")]).strip(".")
            names |= {f"{module}.{alias.name}" for alias in node.names} | {module}
    return names


def ours(file: Path) -> set[str]:
    """Return what of this package a module imports, without the package's name."""
    return {name.removeprefix("sewn_garland.") for name in imported(file) if name.startswith("sewn_garland.")}


def tops(file: Path) -> set[str]:
    return {name.split(".")[0] for name in imported(file)}


def part_of(file: Path) -> str:
    return file.relative_to(CORE).parts[0].removesuffix(".py")


@pytest.mark.parametrize("file", sorted(CORE.rglob("*.py")), ids=lambda f: str(f.relative_to(CORE)))
def test_the_core_knows_no_outside_and_each_part_only_what_lies_below_it(file):
    assert not tops(file) & FOREIGN
    assert not [name for name in ours(file) if not name.startswith("core")]
    reached = {name.split(".")[1] for name in ours(file) if name.startswith("core.")}
    part = part_of(file)
    if part in STAGES:
        assert reached <= {*BELOW, part}
    elif part in BELOW:
        assert reached <= {*BELOW[part], part}
    else:
        assert part in ABOVE or part == "__init__", f"{file.name} lies outside every stage"


def test_below_the_server_nothing_knows_the_web_and_below_the_workshop_nothing_knows_that():
    for folder in ("core", "store", "workshop", "jobs", "standins", "demo"):
        for file in (PACKAGE / folder).rglob("*.py"):
            if "migrations" not in file.parts:
                assert not tops(file) & WEB, file
                assert not [name for name in ours(file) if name.startswith("server")], file
    for folder in ("core", "store", "standins", "jobs"):
        for file in (PACKAGE / folder).rglob("*.py"):
            assert not [name for name in ours(file) if name.startswith("workshop")], file
    for file in (PACKAGE / "store").rglob("*.py"):
        assert not [name for name in ours(file) if name.startswith("core")], file


def test_routes_translate_and_leave_rows_to_the_workshop():
    for file in (PACKAGE / "server" / "routes").glob("*.py"):
        assert "make_step(" not in file.read_text(), file


def functions(file: Path):
    text = file.read_text()
    lines = text.splitlines()
    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.FunctionDef):
            docstring = ast.get_docstring(node, clean=False)
            first = min([node.lineno, *(d.lineno for d in node.decorator_list)])
            told = first > 1 and lines[first - 2].lstrip().startswith("#")
            yield node.name, node.end_lineno - node.lineno + 1 - len((docstring or "").splitlines()), told


@pytest.mark.parametrize("file", sorted(CORE.rglob("*.py")), ids=lambda f: str(f.relative_to(CORE)))
def test_no_function_of_the_core_is_long_without_a_reason_above_it(file):
    assert not [name for name, length, told in functions(file) if length > MOST_LINES_A_FUNCTION and not told]


def test_every_file_of_the_core_has_its_test_or_names_the_one_that_looks_at_it():
    tests = {file.relative_to(ROOT / "tests/core").with_suffix("").as_posix() for file in (ROOT / "tests/core").rglob("test_*.py")}
    own = {name.rpartition("test_")[2] for name in tests}
    files = {file.relative_to(CORE).with_suffix("").as_posix() for file in CORE.rglob("*.py") if file.stem != "__init__"}
    untold = {name for name in files if name.rpartition("/")[2] not in own and LOOKED_AT_BY.get(name) not in tests}
    assert not untold
    assert not set(LOOKED_AT_BY) - files


def test_functions_stay_short_on_the_whole():
    lengths = sorted(length for file in PACKAGE.rglob("*.py") for _, length, _ in functions(file))
    assert lengths[len(lengths) // 2] <= 12


def tracked(*patterns: str) -> list[Path]:
    command = ["git", "ls-files", "-co", "--exclude-standard", *patterns]
    listed = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=True)
    return [ROOT / name for name in listed.stdout.splitlines() if (ROOT / name).is_file()]


def test_no_registry_host_and_no_path_of_a_machine_is_committed():
    hosts = re.compile(r"(pypi\.org|pythonhosted|registry\.npmjs|deb\.debian|/simple\b|\"resolved\":)")
    paths = re.compile(r"(?<![\w.])/(work|home|farm)/\w")
    for file in tracked():
        if file.suffix in {".png", ".woff2", ".ico"} or file == Path(__file__):
            continue
        text = file.read_text(errors="ignore")
        assert not hosts.search(text), file
        assert not paths.search(text), file


def test_files_stay_readable_in_length():
    for file in tracked("*.py", "*.ts", "*.tsx"):
        if file.name != "schema.d.ts":
            assert len(file.read_text().splitlines()) <= MOST_LINES, file


def test_parts_of_the_front_end_stay_small():
    for file in tracked("frontend/src/*.tsx"):
        assert len(file.read_text().splitlines()) < MOST_LINES_A_PART, file


def test_a_tool_knows_neither_a_store_nor_the_network():
    for file in tracked("frontend/src/stations/*/tools/*.ts"):
        imported = re.findall(r'^import (?!type).* from "(.*)";', file.read_text(), re.MULTILINE)
        assert not [name for name in imported if "/api/" in name or name in ("../desk", "../bench", "../work", "zustand")], file


def test_lines_of_the_front_end_stay_readable_in_width():
    for file in tracked("frontend/src/*.ts", "frontend/src/*.tsx"):
        if file.name != "schema.d.ts":
            wide = [n for n, line in enumerate(file.read_text().splitlines(), 1) if len(line) > MOST_WIDE]
            assert not wide, (file, wide)


def test_published_documents_are_those_the_app_serves():
    sys.path.insert(0, str(ROOT / "scripts"))
    from publish import published

    for name, data in published().items():
        assert (ROOT / name).read_bytes() == data, f"run make docs: {name} is out of date"


def test_the_vocabulary_is_written_down():
    words = (ROOT / "docs" / "vocabulary.md").read_text().lower()
    for word in ("motif", "base line", "joint", "run", "track", "stop", "join", "pitch", "ease", "leftover", "tight bend", "cure",
                 "trial line"):  # fmt: skip
        assert word in words
