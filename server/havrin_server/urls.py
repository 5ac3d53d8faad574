"""Routes: the interface under /api/, everything else is the page."""

from django.urls import path, re_path

from havrin_server.interface import api, broken, unknown_call
from havrin_server.page import index

handler500 = broken
urlpatterns = [
    re_path(r"^api/?$", unknown_call),
    path("api/", api.urls),
    re_path(r"^api/", unknown_call),
    re_path(r"^(?!assets/|fonts/).*$", index),
]
