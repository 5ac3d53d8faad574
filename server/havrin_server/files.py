"""Answers that are files."""

from django.http import HttpResponse


def file_answer(content: bytes, kind: str, name: str, *, inline: bool = False) -> HttpResponse:
    """Return ``content`` as a file to keep, or to look at in place."""
    response = HttpResponse(content, content_type=kind)
    response["Content-Disposition"] = f'{"inline" if inline else "attachment"}; filename="{name}"'
    return response


def pdf_answer(content: bytes, name: str) -> HttpResponse:
    """Return a PDF to look at in place."""
    return file_answer(content, "application/pdf", name, inline=True)


def no_formula(text: str) -> str:
    """Return text for a cell of a table: one that a spreadsheet would take for a formula is given a quote in front."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text
