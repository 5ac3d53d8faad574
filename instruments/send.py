"""Send samples to the capture interface: what was not acknowledged is kept and sent again."""

import json
import time
import urllib.error
import urllib.request
from collections import deque
from typing import Any

_KEEP_BATCHES = 3000
_WAIT_S = 5.0


class Sender:
    """One device's line to the server. Batches wait in order until the server says that it stored them."""

    def __init__(self, url: str, key: str) -> None:
        self.url, self.key = url, key
        self.sequence = 0
        self.unit = ""  # label of the unit that the server records now
        self.waiting: deque[dict[str, Any]] = deque(maxlen=_KEEP_BATCHES)

    def offer(self, channels: dict[str, dict[str, list[float]]]) -> bool:
        """Queue a batch and send what waits; return whether the server records at all."""
        self.waiting.append({"sequence": self.sequence, "channels": channels, "simulated": True})
        self.sequence += 1
        while self.waiting:
            answer = self._post(self.waiting[0])
            if answer is None:
                return True  # the server is away: the batch stays
            self.waiting.popleft()
            self.unit = answer.get("unit") or self.unit
            if not answer["recording"]:
                self.waiting.clear()
                return False
        return True

    def _post(self, batch: dict[str, Any]) -> Any:
        body = json.dumps({"device_time_s": time.monotonic(), **batch}).encode()
        headers = {"Authorization": f"Bearer {self.key}", "Content-Type": "application/json"}
        request = urllib.request.Request(f"{self.url}/api/capture/batches", body, headers)
        try:
            with urllib.request.urlopen(request, timeout=_WAIT_S) as answer:
                return json.load(answer)
        except urllib.error.HTTPError as refusal:
            if refusal.code >= 500:
                return None
            raise SystemExit(f"The server refuses this device: {refusal.read().decode()[:300]}") from refusal
        except OSError:
            return None
