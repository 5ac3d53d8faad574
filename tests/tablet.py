"""Somebody who is signed in, over a wire of his own to the real server."""

import http.client
import json
from contextlib import closing


class Tablet:
    """Signed in over a wire of its own."""

    def __init__(self, server, username="tove"):
        self.host = server.url.removeprefix("http://")
        body = json.dumps({"username": username, "password": "valley-heat"})
        answer, _ = self.call("POST", "session", body)
        kept = [value.split(";")[0] for name, value in answer.getheaders() if name.lower() == "set-cookie"]
        self.cookies = "; ".join(kept)
        self.csrf = next(one.partition("=")[2] for one in kept if one.startswith("csrftoken"))

    cookies, csrf = "", ""

    def call(self, method, path, body=None):
        headers = {"Cookie": self.cookies, "X-CSRFToken": self.csrf, "Content-Type": "application/json"}
        with closing(http.client.HTTPConnection(self.host, timeout=60)) as wire:
            wire.request(method, f"/api/{path}", body, headers)
            answer = wire.getresponse()
            return answer, answer.read()

    def get(self, path):
        """Return what a call that must not fail answers."""
        answer, content = self.call("GET", path)
        assert answer.status == 200, content
        return json.loads(content)

    def listen(self, visit):
        wire = http.client.HTTPConnection(self.host, timeout=60)
        wire.request("GET", f"/api/visits/{visit}/live", headers={"Cookie": self.cookies})
        answer = wire.getresponse()
        assert answer.status == 200, answer.read()
        assert answer.readline() == b"retry: 1500\n"
        return wire, answer
