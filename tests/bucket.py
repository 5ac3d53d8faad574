"""A storage of the S3 kind for tests: another make's, asked over the wire."""

import uuid
from contextlib import contextmanager
from types import SimpleNamespace

import boto3
from moto.server import ThreadedMotoServer

from launcher.cluster import free_port

KEY, SECRET, REGION = "made-up-key", "made-up-secret", "valley-1"


@contextmanager
def bucket_served():
    """Yield an empty bucket: its name, its address, what ``names`` are in it, and how to ``stop`` answering."""
    server = ThreadedMotoServer(ip_address="127.0.0.1", port=free_port(), verbose=False)
    server.start()
    endpoint = f"http://127.0.0.1:{server._port}"
    client = boto3.client(
        "s3", endpoint_url=endpoint, region_name=REGION, aws_access_key_id=KEY, aws_secret_access_key=SECRET
    )
    name = f"b{uuid.uuid4().hex[:12]}"
    client.create_bucket(Bucket=name, CreateBucketConfiguration={"LocationConstraint": REGION})

    def names():
        pages = client.get_paginator("list_objects_v2").paginate(Bucket=name)
        return sorted(row["Key"] for page in pages for row in page.get("Contents", ()))

    try:
        yield SimpleNamespace(name=name, endpoint=endpoint, names=names, client=client, stop=server.stop)
    finally:
        server.stop()
