"""``python -m havrin_server.serving``: one process that serves. Several may share a port: one that dies takes only itself."""

import argparse
import gc
import socket

import uvicorn


def main() -> None:
    """Serve until told to stop."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--host", default="127.0.0.1")
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--proxies", default="", help="whose word is taken for who asks, and by which scheme")
    parser.add_argument("--tls-certificate")
    parser.add_argument("--tls-key")
    options = parser.parse_args()
    config = uvicorn.Config(
        "havrin_server.asgi:application",
        log_level="warning",
        timeout_keep_alive=75,  # an open page asks every few seconds: it keeps its wire
        timeout_graceful_shutdown=3,  # open pages listen for ever: it does not wait for them to go
        proxy_headers=bool(options.proxies),
        forwarded_allow_ips=options.proxies or None,
        ssl_certfile=options.tls_certificate,
        ssl_keyfile=options.tls_key,
        server_header=False,
        log_config=None,  # as the settings have it
    )
    config.load()
    _collect_less_often()
    uvicorn.Server(config).run(sockets=[shared_socket(options.host, options.port)])


def _collect_less_often() -> None:
    """Leave what was loaded for good out of every collection: a page of hundreds of rows waited for several of them."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)


def shared_socket(host: str, port: int) -> socket.socket:
    """Return a socket on a port that other processes of this installation listen on as well."""
    made = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    made.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    made.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEPORT, 1)
    made.bind((host, port))
    return made


if __name__ == "__main__":
    main()
