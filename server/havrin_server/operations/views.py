"""Is the server alive?"""

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router

router = Router(tags=["operations"])


@router.get("/health", auth=None, response=dict[str, str])
def health(request: HttpRequest) -> dict[str, str]:
    """Tell that the server is alive."""
    return {"status": "ok", "time": timezone.now().isoformat()}
