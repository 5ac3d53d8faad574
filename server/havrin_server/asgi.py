"""The ASGI application that uvicorn serves."""

import os
import warnings

from django.core.asgi import get_asgi_application

# Files of the page and photos are small and read by a thread: streaming them asynchronously would gain nothing.
warnings.filterwarnings("ignore", message="StreamingHttpResponse must consume synchronous iterators")
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "havrin_server.settings")
application = get_asgi_application()
