"""One stand-in: HAVRIN_DEVICE_KEY=… python -m instruments manometer --url URL --units FILE.

The key comes by the environment: what stands in a command is read by everybody on the machine.
"""

import argparse
import os
import random
import time
from pathlib import Path

from instruments.devices import DEVICES
from instruments.send import Sender
from instruments.world import UnitsByLabel

_BATCH_S = 0.2
_ASLEEP_S = 1.0


def main() -> None:
    """Measure the unit that the server records, and send what is measured, until stopped."""
    parser = argparse.ArgumentParser(prog="python -m instruments")
    parser.add_argument("kind", choices=sorted(DEVICES))
    parser.add_argument("--url", required=True)
    parser.add_argument("--units", required=True, type=Path, help="label -> circuit, faults, gusts, neighbours, seed")
    parser.add_argument("--epoch", type=float, default=0.0, help="Unix time at which the units' lives began")
    run(parser.parse_args())


def run(options: argparse.Namespace) -> None:
    """Send batch after batch at the device's own pace."""
    units = UnitsByLabel(options.units)
    device = DEVICES[options.kind](random.Random(options.kind), time.time() - options.epoch)
    sender = Sender(options.url, os.environ["HAVRIN_DEVICE_KEY"])
    batch: dict[str, dict[str, list[float]]] = {}
    due, send_at = time.monotonic(), time.monotonic() + _BATCH_S
    while True:
        now = time.monotonic()
        for name, value in device.measure(units.unit(sender.unit), time.time() - options.epoch).items():
            samples = batch.setdefault(name, {"t": [], "v": []})
            samples["t"].append(now)
            samples["v"].append(value)
        if batch and now >= send_at:
            recording = sender.offer(batch)
            batch, send_at = {}, time.monotonic() + (_BATCH_S if recording else _ASLEEP_S)
        due = max(due + 1 / device.hertz, time.monotonic())
        time.sleep(max(due - time.monotonic(), 0.0))


if __name__ == "__main__":
    main()
