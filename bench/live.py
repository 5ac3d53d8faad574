"""Live capture: from a sample to an open page with twelve instruments at 10 Hz, storage, and opening an hour."""

import json
import threading
import time
import urllib.request
from statistics import quantiles
from typing import Any

from bench.interface import Caller, served

DEVICES, HERTZ, SECONDS = 12, 10, 20
_PER_BATCH = 2  # as the stand-ins send
_HOUR_S = 3600


def report() -> None:
    """Print the figures, through a real server and PostgreSQL."""
    with served() as url:
        import django

        django.setup()
        keys, visit, capture = _prepare()
        print(f"live capture ({DEVICES} instruments at {HERTZ} Hz, {SECONDS} s, every sample counted)")
        for said, apart_s in (
            ("all sending at one moment", 0.0),
            ("each at a moment of its own", _PER_BATCH / HERTZ / DEVICES),
        ):
            waits = _latency(url, keys, visit, apart_s)
            p50, p95 = 1000 * quantiles(waits, n=2)[0], 1000 * quantiles(waits, n=20)[-1]
            print(f"  sample to open page, {said}: p50 {p50:.0f} ms, p95 {p95:.0f} ms ({len(waits)} samples)")
        _storage(capture)
        _opening(url, visit)


def _prepare() -> tuple[list[str], int, Any]:
    from django.utils import timezone

    from havrin_server.captures.live import make_key, start_capture
    from havrin_server.instruments.models import Instrument
    from havrin_server.people.models import Person
    from havrin_server.visits.models import Visit

    tove = Person.objects.get(username="tove")
    visit = Visit.objects.get(unit__label="F-1", closed_at=None)
    made = [Instrument.objects.create(firm=tove.firm, name=f"Bench {i}", kind="manometer") for i in range(DEVICES)]
    capture = start_capture(visit.pk, [i.pk for i in made], "only", actor=tove, now=timezone.now())
    return [make_key(i, timezone.now()) for i in made], visit.pk, capture


def _latency(url: str, keys: list[str], visit: int, apart_s: float) -> list[float]:
    """Return the wait of every sample, s; instrument by instrument begins ``apart_s`` later."""
    waits: list[float] = []
    caller = Caller(url)
    stop = time.monotonic() + SECONDS
    listener = threading.Thread(target=_listen, args=(caller, visit, stop, waits), daemon=True)
    listener.start()
    time.sleep(1.0)
    senders = [threading.Thread(target=_send, args=(url, key, stop, i * apart_s)) for i, key in enumerate(keys)]
    for sender in senders:
        sender.start()
    for sender in senders:
        sender.join()
    listener.join(2)
    return waits


def _send(url: str, key: str, stop: float, late_s: float) -> None:
    headers = {"Authorization": f"Bearer {key}", "Content-Type": "application/json"}
    due = time.monotonic() + late_s
    first = int(due * 1000)  # numbers that no round before has used
    for sequence in range(first, first + SECONDS * HERTZ // _PER_BATCH):
        times = []
        for _ in range(_PER_BATCH):
            due += 1 / HERTZ
            time.sleep(max(due - time.monotonic(), 0))
            times.append(time.time())
        if due > stop:
            return
        values = [t % 1000 for t in times]
        body = {"device_time_s": time.time(), "sequence": sequence, "channels": {"draft_pa": {"t": times, "v": values}}}
        data = json.dumps(body).encode()
        urllib.request.urlopen(urllib.request.Request(f"{url}/api/capture/batches", data, headers)).read()


def _listen(caller: Caller, visit: int, stop: float, waits: list[float]) -> None:
    with caller.opener.open(f"{caller.url}/api/visits/{visit}/live", timeout=SECONDS) as stream:
        for line in stream:
            if line.startswith(b"data: "):
                now = time.time()
                waits += [(now - sent) % 1000 for sent in json.loads(line[6:])["channels"]["draft_pa"][1]]
            if time.monotonic() > stop:
                return


def _storage(capture: Any) -> None:
    from django.db import connection

    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT count(*), sum(pg_column_size(packed)), pg_total_relation_size('captures_sampleblock') FROM captures_sampleblock"
        )
        rows, packed, whole = cursor.fetchone()
    print(
        f"  stored: {rows} blocks of two samples, {packed / rows:.0f} B packed, {whole / rows:.0f} B with row and index each"
    )


def _opening(url: str, visit: int) -> None:
    from django.utils import timezone

    from havrin_core.traces.samples import pack
    from havrin_server.captures.live import start_capture
    from havrin_server.captures.models import SampleBlock
    from havrin_server.instruments.models import Instrument
    from havrin_server.people.models import Person

    tove = Person.objects.get(username="tove")
    capture = start_capture(visit, [Instrument.objects.get(name="Bench 0").pk], "only", actor=tove, now=timezone.now())
    recorder = capture.recorders.get()
    blocks = []
    for quantity in ("draft_pa", "manifold_pa", "flame_current_a"):
        for second in range(0, _HOUR_S, 2):
            times = [1000 * second + 100 * i for i in range(20)]
            blocks.append(
                SampleBlock(
                    recorder=recorder,
                    quantity=quantity,
                    sequence=second,
                    first_ms=times[0],
                    last_ms=times[-1],
                    count=20,
                    packed=pack(times, [200.0 + (t * 7919 % 13) for t in times]),
                )
            )
    SampleBlock.objects.bulk_create(blocks)
    size = sum(len(b.packed) for b in blocks)
    caller = Caller(url)
    times = []
    for _ in range(5):
        begun = time.perf_counter()
        caller.call("GET", f"captures/{capture.pk}/traces")
        times.append(time.perf_counter() - begun)
    print(
        f"  an hour of 3 channels at 10 Hz: {size / 1000:.0f} kB packed, opens in {1000 * min(times):.0f} to {1000 * max(times):.0f} ms"
    )
