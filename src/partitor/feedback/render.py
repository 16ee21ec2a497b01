"""Feedback pages as HTML (one file, no script, nothing from outside) and as Markdown."""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import files

import jinja2

from ..exchange.report import Report
from ..reading.text import visible
from .wording import FeedbackPage


@lru_cache(maxsize=1)
def _environment() -> jinja2.Environment:
    """HTML templates escape everything; nothing of a student's is ever marked safe."""
    folder = files("partitor.feedback") / "templates"
    loader = jinja2.FunctionLoader(lambda name: (folder / name).read_text(encoding="utf-8"))
    return jinja2.Environment(
        loader=loader,
        autoescape=lambda name: bool(name) and ".html" in str(name),
        trim_blocks=True,
        lstrip_blocks=True,
        undefined=jinja2.StrictUndefined,
        finalize=lambda value: visible(value) if type(value) is str else value,
    )


def page_html(page: FeedbackPage) -> str:
    """The student's page."""
    return _environment().get_template("page.html.j2").render(page=page, style=_style())


def page_markdown(page: FeedbackPage) -> str:
    """The same page as Markdown; code stands in fences longer than any fence inside it."""
    environment = _environment().overlay(autoescape=False)
    environment.filters["fence"] = _fenced
    environment.filters["inline"] = inline_markdown
    return environment.get_template("page.md.j2").render(page=page)


def index_html(report: Report, file_names: dict[str, str]) -> str:
    """The batch at a glance, with links to everything that was written."""
    return _environment().get_template("index.html.j2").render(report=report, file_names=file_names, style=_style())


def _style() -> str:
    return (files("partitor.feedback") / "templates" / "page.css").read_text(encoding="utf-8")


def _fenced(code: str, language: str = "") -> str:
    ticks = "```"
    while ticks in code:
        ticks += "`"
    return f"{ticks}{language}\n{code}\n{ticks}"


def inline_markdown(text: str) -> str:
    """Text with everything that Markdown or HTML would act on escaped."""
    for sign in "\\`*_{}[]<>#|":
        text = text.replace(sign, "\\" + sign if sign not in "<>" else {"<": "&lt;", ">": "&gt;"}[sign])
    return text.replace("\n", " ")
