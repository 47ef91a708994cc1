"""Every text a user may read: strings of the application and of its screens, sheets, tables, the guide, the README; and phrases none may hold."""

from __future__ import annotations

import ast
import csv
import re
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

import yaml

PROJECT = Path(__file__).resolve().parents[2]
_PHRASES = Path(__file__).with_name("phrases.txt")
# Words with a blank between them: keys and names of fields are none.
_WORDS = re.compile(r"[A-Za-z]{2,} [a-z]")
# Migrations are no texts, benchmarks speak to engineers, and the types of the API are made from the texts of the API.
_LEFT_OUT = ("migrations", "benchmarks", "schema.d.ts", ".test.ts")
_CODE = re.compile(r"<(script|style)[^>]*>.*?</\1>", re.DOTALL)
# Tags and expressions of a screen.
_MARKS = re.compile(r"\{[^{}]*\}|</?[a-zA-Z][^<>]*>")
_QUOTED = re.compile(r"(?<![\w])'([^'\n]*[A-Za-z]{2,} [a-z][^'\n]*)'|`([^`\n]*[A-Za-z]{2,} [a-z][^`\n]*)`")


@dataclass(frozen=True, slots=True)
class Text:
    """A text and where it stands."""

    path: Path
    line: int
    text: str

    def __str__(self) -> str:
        return f"{self.path.relative_to(PROJECT)}:{self.line}: {self.text[:120]}"


def texts() -> Iterator[Text]:
    """Every text, file by file."""
    for path in _files("src/ironkettle", ".py"):
        yield from _of_python(path)
    for suffix in (".svelte", ".ts"):
        for path in _files("web/src", suffix):
            yield from _of_screen(path)
    for path in _files("src/ironkettle", ".yaml"):
        yield from _of_yaml(path)
    for path in _files("src/ironkettle/reference", ".csv"):
        yield from _of_table(path)
    for path in (PROJECT / "README.md", *_files("docs/guide", ".md")):
        for line, text in enumerate(path.read_text(encoding="utf-8").split("\n"), start=1):
            if _WORDS.search(text):
                yield Text(path, line, text)


def banned() -> Iterator[tuple[Text, str]]:
    """Texts with a phrase that is not used, and what is said instead."""
    rows = [row for row in _PHRASES.read_text(encoding="utf-8").split("\n") if row and not row.startswith("#")]
    phrases = [
        (re.compile(phrase.strip(), re.IGNORECASE), instead.strip())
        for phrase, instead in (row.rsplit(" | ", 1) for row in rows)
    ]
    for text in texts():
        for phrase, instead in phrases:
            if phrase.search(text.text):
                yield text, instead


def _files(folder: str, suffix: str) -> list[Path]:
    found = sorted((PROJECT / folder).rglob(f"*{suffix}"))
    return [path for path in found if not any(part in str(path) for part in _LEFT_OUT)]


def _of_python(path: Path) -> Iterator[Text]:
    tree = ast.parse(path.read_text(encoding="utf-8"))
    documented = ast.Module | ast.ClassDef | ast.FunctionDef | ast.AsyncFunctionDef
    docs = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, documented) and node.body and isinstance(node.body[0], ast.Expr)
    }
    # The API shows the docstrings of its routes and bodies.
    shown = "ironkettle/api" in str(path)
    for node in ast.walk(tree):
        if not isinstance(node, ast.Constant) or not isinstance(node.value, str):
            continue
        if (shown or id(node) not in docs) and _WORDS.search(node.value):
            yield Text(path, node.lineno, node.value)


def _of_yaml(path: Path) -> Iterator[Text]:
    """The scalars of a build sheet, of the demo workshop, or of the descriptions of the API."""
    for event in yaml.parse(path.read_text(encoding="utf-8"), Loader=yaml.SafeLoader):
        if isinstance(event, yaml.ScalarEvent) and _WORDS.search(event.value):
            yield Text(path, event.start_mark.line + 1, event.value)


def _of_table(path: Path) -> Iterator[Text]:
    with path.open(encoding="utf-8", newline="") as file:
        for row in (rows := csv.reader(file)):
            yield from (Text(path, rows.line_num, cell) for cell in row if _WORDS.search(cell))


def _of_screen(path: Path) -> Iterator[Text]:
    whole = path.read_text(encoding="utf-8")
    markup = _CODE.sub(lambda found: "\n" * found[0].count("\n"), whole) if path.suffix == ".svelte" else ""
    for line, marked in enumerate(markup.split("\n"), start=1):
        text = _MARKS.sub(" ", marked).strip()
        if _WORDS.search(text) and not marked.strip().startswith(("<!--", "class=")):
            yield Text(path, line, text)
    for found in _QUOTED.finditer(whole):
        yield Text(path, whole[: found.start()].count("\n") + 1, found[1] or found[2])
