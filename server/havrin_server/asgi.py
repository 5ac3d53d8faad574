"""The ASGI application that uvicorn serves."""

import gc
import os
import sys
import warnings

from django.core.asgi import get_asgi_application

from havrin_server.body_limits import BodyLimits

# Files of the page and photos are small and read by a thread: streaming them asynchronously would gain nothing.
warnings.filterwarnings("ignore", message="StreamingHttpResponse must consume synchronous iterators")
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "havrin_server.settings")
application = BodyLimits(get_asgi_application())

# One line on a long tape makes a hundred thousand short-lived objects: at the usual threshold the collector looks through
# everything that is kept (kinds, circuits, tables) again and again while somebody waits.
gc.collect()
gc.freeze()
gc.set_threshold(20_000, 20, 50)
# A call goes to and fro between the loop and its thread a dozen times: with many at work each way would wait for a slice of 5 ms.
sys.setswitchinterval(0.0005)
