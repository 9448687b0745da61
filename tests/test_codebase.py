"""Rules about the code itself."""

from __future__ import annotations

import ast
import re
import subprocess
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
PACKAGE = ROOT / "src" / "sewn_garland"
CORE = PACKAGE / "core"
STAGES = {"reading", "making", "measuring", "spacing", "placing", "shaping", "colouring", "inspecting", "drawing"}
SHARED = {"values", "maths", "errors"}
FOREIGN = {"flask", "sqlmodel", "sqlalchemy", "waitress", "alembic", "time", "random", "flask_openapi"}
MOST_LINES = 500


def imported(file: Path) -> set[str]:
    """Return what a module imports, absolute names with dots."""
    package = list(file.relative_to(PACKAGE.parent).with_suffix("").parts[:-1])
    names = set()
    for node in ast.walk(ast.parse(file.read_text())):
        if isinstance(node, ast.Import):
            names |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            base = package[: len(package) - node.level + 1] if node.level else []
            names.add(".".join([*base, *(node.module or "").split(".")]).strip("."))
    return names


def stage_of(file: Path) -> str:
    return file.relative_to(CORE).parts[0].removesuffix(".py")


@pytest.mark.parametrize("file", sorted(CORE.rglob("*.py")), ids=lambda f: str(f.relative_to(CORE)))
def test_the_core_knows_no_outside_and_stages_know_only_what_they_share(file):
    names = imported(file)
    assert not {n.split(".")[0] for n in names} & FOREIGN
    ours = {n.removeprefix("sewn_garland.") for n in names if n.startswith("sewn_garland")}
    assert not [n for n in ours if not n.startswith("core")]
    stage = stage_of(file)
    if stage not in STAGES:
        return
    reached = {n.split(".")[1] for n in ours if n.startswith("core.")}
    # drawing writes what was placed and needs its matrices
    allowed = SHARED | {stage} | ({"placing"} if stage == "drawing" else set())
    assert reached <= allowed


def tracked(*patterns: str) -> list[Path]:
    listed = subprocess.run(["git", "ls-files", "-co", "--exclude-standard", *patterns], cwd=ROOT, capture_output=True, text=True, check=True)
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


def test_published_documents_are_those_the_app_serves():
    import sys

    sys.path.insert(0, str(ROOT / "scripts"))
    from publish import published

    for name, data in published().items():
        assert (ROOT / "docs" / name).read_bytes() == data, f"run make docs: {name} is out of date"


def test_the_vocabulary_is_written_down():
    words = (ROOT / "docs" / "vocabulary.md").read_text().lower()
    for word in ("motif", "base line", "joint", "run", "stop", "join", "pitch", "ease", "leftover", "tight bend", "cure", "trial line"):
        assert word in words
