"""Routes: the interface under /api/, everything else is the page."""

from django.urls import path, re_path

from havrin_server.interface import api
from havrin_server.page import index

urlpatterns = [path("api/", api.urls), re_path(r"^(?!assets/|fonts/).*$", index)]
