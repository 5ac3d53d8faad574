"""Reads JSON lines and answers each with one; a line that cannot be answered says why, and the next one is read."""

import gc
import json
from collections.abc import Callable, Iterable, Mapping
from typing import Any, TextIO

from havrin_core.batch.commands import assess_op, call_op, next_op, solve_op
from havrin_core.batch.read import read_op
from havrin_core.batch.visit import visit_op
from havrin_core.errors import BadDocument, CoreError
from havrin_core.phrases import phrase
from havrin_core.wording.phrases import words

_OPS: Mapping[str, Callable[[Mapping[str, Any]], Any]] = {
    "read": read_op,
    "visit": visit_op,
    "assess": assess_op,
    "next": next_op,
    "solve": solve_op,
    "call": call_op,
}


def run(source: Iterable[str], target: TextIO) -> int:
    """Answer every line of ``source`` on ``target``, in order; return 0."""
    # The vocabulary stays for good: collecting through it again and again took a third of the time.
    gc.freeze()
    for line in source:
        if line.strip():
            target.write(json.dumps(answer(line), ensure_ascii=False, separators=(",", ":")) + "\n")
            target.flush()
    return 0


def answer(line: str) -> Any:
    """Return the answer to one line; a refusal is ``{"error": {code, message, at}}``."""
    try:
        request = json.loads(line)
        if not isinstance(request, dict):
            raise BadDocument("batch_form", phrase("line_json_object_op"), value="")
        if request.get("op") not in _OPS:
            raise BadDocument("batch_op", phrase("op_one", ops=", ".join(_OPS)), value="op")
        return _OPS[request["op"]](request)
    except json.JSONDecodeError as error:
        return _error("not_json", words(phrase("line_not_json", why=error.msg)), f"column {error.colno}")
    except CoreError as error:
        return _error(error.code, words(error.said), error.value)
    except (KeyError, TypeError, ValueError, AttributeError, IndexError, AssertionError, RecursionError) as error:
        return _error("batch_content", words(phrase("line_not_answered", why=f"{type(error).__name__} {error}")), "")


def _error(code: str, message: str, at: Any) -> dict[str, Any]:
    return {"error": {"code": code, "message": message, "at": str(at) if at is not None else ""}}
