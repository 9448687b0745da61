"""Take one PNG of every main view from the demo data, at 1280 × 800, into docs/screenshots/."""

from __future__ import annotations

import os
import re
import tempfile
import threading
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from werkzeug.serving import make_server

from sewn_garland.demo.build import build_demo
from sewn_garland.server.app import create_app
from sewn_garland.store.database import Store

OUT = Path(__file__).parents[1] / "docs" / "screenshots"


def _open_corners(page: Page) -> None:
    page.get_by_role("button", name=re.compile("^Square corners")).click()
    page.get_by_role("button", name=re.compile("^Butt the runs")).first.hover()


def _ferry_route(page: Page) -> None:
    page.get_by_role("button", name=re.compile(r"^Ferry route \d")).click()


def _colour(page: Page) -> None:
    """A chain that is seen through, laid on a coloured ground."""
    page.get_by_label("Own ground").fill("#8fb3c4")
    page.get_by_role("button", name="What colour?").click()
    page.get_by_role("radio", name="multiply").click()
    page.get_by_label("Ink per piece").fill("60")
    page.get_by_label("Ink per piece").press("Enter")
    page.get_by_role("button", name="Each piece covers 60 %").wait_for()


def _loosely(page: Page) -> None:
    """Twelve arrangements of what varies."""
    page.get_by_role("button", name="How loosely?").click()
    page.get_by_role("button", name="See twelve").click()
    page.get_by_role("button", name="Arrangement 12", exact=True).wait_for()


def _aside(page: Page) -> None:
    """Thick and thin beside one width all along, on every trial line and on a line of a page."""
    page.get_by_role("button", name="Keep aside").click()
    page.get_by_role("button", name="What does the hand do?").click()
    page.get_by_role("button", name="Thick and thin").click()
    page.get_by_role("button", name="Pin a line").click()
    page.get_by_role("menuitemcheckbox", name="Mooring chain").click()
    page.keyboard.press("Escape")
    page.get_by_text("aside: joins").first.wait_for()


def _harder(page: Page) -> None:
    """A trial line large, its point moved, with the plot of its joins."""
    page.get_by_role("button", name=re.compile("^Hairpin: ")).click()
    point = page.get_by_test_id("trial-point-3")
    point.wait_for()
    for key in ["Shift+ArrowLeft", "Shift+ArrowLeft", "Shift+ArrowDown"]:
        point.press(key)
    page.get_by_role("button", name="As it stands").wait_for()


def _corner(page: Page) -> None:
    page.get_by_role("button", name="No inside corner yet").click()
    page.get_by_label("Joins of the corner").wait_for()
    page.get_by_role("slider", name="Angle of the corner").press("Shift+ArrowRight")


def _traced_scan(page: Page) -> None:
    page.get_by_role("button", name="Scan tray").click()
    page.get_by_role("button", name=re.compile("mussel-prints")).click()
    page.get_by_role("radio", name="ink and ground").click()
    page.get_by_text(re.compile("points, within")).wait_for()


def _points(page: Page) -> None:
    page.get_by_role("button", name="Points", exact=True).click()
    page.get_by_role("list", name=re.compile("Parts")).get_by_role("button").last.click()
    page.get_by_role("slider", name=re.compile("^Point 2")).wait_for()


VIEWS: dict[str, tuple[str, Callable[[Page], None] | None]] = {
    "motif": ("motif/6", None),
    "motif-points": ("motif/6", _points),
    "motif-picture": ("motif/6", _traced_scan),
    "repeat": ("repeat/1", None),
    "repeat-cure": ("repeat/1", _open_corners),
    "repeat-harder": ("repeat/2", _harder),
    "motif-corner": ("motif/2", _corner),
    "page-mug": ("page/3", None),
    "page": ("page/1", _ferry_route),
    "shelf": ("shelf", None),
    "page-night": ("page/5", None),
    "repeat-loosely": ("repeat/13", _loosely),
    "repeat-aside": ("repeat/4", _aside),
    "repeat-colour": ("repeat/4", _colour),  # last, for they change the brush
}


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        store = Store(Path(folder) / "demo.sqlite")
        build_demo(store)
        server = make_server("127.0.0.1", 0, create_app(store), threaded=True)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        browser = playwright.chromium.launch(executable_path=os.environ.get("CHROMIUM", "/usr/bin/chromium"), args=["--no-sandbox"])
        for name, (place, prepare) in VIEWS.items():
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(f"http://127.0.0.1:{server.server_port}/#/{place}")
            page.wait_for_load_state("networkidle")
            if prepare:
                prepare(page)
            page.get_by_text("Laying it out…").wait_for(state="hidden")
            page.wait_for_timeout(900)  # lets the fonts settle and the cures arrive
            page.screenshot(path=OUT / f"{name}.png")
            page.close()
        browser.close()
        server.shutdown()
        store.close()


if __name__ == "__main__":
    main()
