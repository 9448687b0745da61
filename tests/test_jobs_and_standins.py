"""Long work with progress and stop, and the stand-in for a scanner."""

from __future__ import annotations

import threading

import numpy as np
import pytest
from PIL import Image

from sewn_garland.core.errors import InputError
from sewn_garland.core.making.tracing import traced
from sewn_garland.demo.scans import SAMPLES, write_samples
from sewn_garland.jobs import Jobs
from sewn_garland.standins.scanner import ScanTray


def ended(jobs, job):
    """Wait for everything before and this job: work goes in order on one thread."""
    done = threading.Event()
    jobs.start(lambda _: done.set())
    assert done.wait(10)
    return job.state


def test_a_job_reports_ends_and_gives_its_result():
    jobs = Jobs()
    seen = []

    def work(job):
        for share in (0.2, 0.1, 0.7):
            job.report(share)
            seen.append(job.share)
        return 42

    job = jobs.start(work)
    assert ended(jobs, job) == "done"
    assert seen == [0.2, 0.2, 0.7]  # progress never goes back
    assert (job.share, job.result) == (1.0, 42)
    assert jobs.find(job.id) is job
    assert jobs.find("nothing") is None
    jobs.close()


def test_a_job_stops_at_its_next_report_and_one_that_waits_never_begins():
    jobs = Jobs()
    begun, go_on = threading.Event(), threading.Event()

    def work(job):
        begun.set()
        go_on.wait(10)
        job.report(0.5)
        return "too late"

    first, second = jobs.start(work), jobs.start(lambda job: "never")
    assert begun.wait(10)
    assert (first.state, second.state) == ("working", "waiting")
    jobs.stop(first)
    jobs.stop(second)
    go_on.set()
    assert ended(jobs, first) == "stopped"
    assert second.state == "stopped"
    assert first.result is None
    assert "nothing was kept" in first.message


def test_a_job_that_fails_says_why_and_the_next_goes_on():
    jobs = Jobs()

    def refused(job):
        raise InputError("no ink was found", where="scan")

    def broken(job):
        raise ZeroDivisionError

    first, second, third = jobs.start(refused), jobs.start(broken), jobs.start(lambda job: 1)
    assert ended(jobs, third) == "done"
    assert (first.state, first.message) == ("failed", "scan: no ink was found")
    assert second.state == "failed"
    assert "the log says more" in second.message


def test_tracing_tells_how_far_it_is_and_can_be_broken_off():
    picture = np.full((60, 80, 4), 255, np.uint8)
    picture[20:40, 20:60, :3] = 0
    shares = []
    traced(picture, colours=None, report=shares.append)
    assert shares[0] == 0
    assert shares[-1] == 1
    assert shares == sorted(shares)

    class Enough(Exception):
        pass

    def stop(share):
        if share > 0.3:
            raise Enough

    with pytest.raises(Enough):
        traced(picture, colours=3, report=stop)


def test_the_tray_lists_pictures_newest_first_and_reads_only_what_it_lists(tmp_path):
    tray = ScanTray(tmp_path / "tray")
    assert tray.scans() == []
    source = tmp_path / "sketch.png"
    Image.new("RGB", (4, 4)).save(source)
    tray.lay_in(source)
    (tray.folder / "half.png.part").write_bytes(b"...")
    (tray.folder / ".hidden.png").write_bytes(b"...")
    assert [s.name for s in tray.scans()] == ["sketch.png"]
    assert tray.read("sketch.png") == source.read_bytes()
    for name in ("../sketch.png", ".hidden.png", "gone.png"):
        with pytest.raises(InputError, match="not in the scan tray any more"):
            tray.read(name)


def test_the_samples_are_the_same_every_time_and_written_once(tmp_path):
    one, two = tmp_path / "one", tmp_path / "two"
    write_samples(one)
    write_samples(two)
    for name in SAMPLES:
        assert (one / f"{name}.png").read_bytes() == (two / f"{name}.png").read_bytes()
        with Image.open(one / f"{name}.png") as image:
            assert image.info["dpi"][0] == pytest.approx(200, abs=0.1)
            assert np.asarray(image).std() > 20
    (one / "drawn-rope.png").write_bytes(b"the user's own")
    write_samples(one)
    assert (one / "drawn-rope.png").read_bytes() == b"the user's own"
