"""Mutated archives and mutated programs, read and checked within the limits of every check: none may raise, none may
pass a limit. A case is its kind and its number, so that each can be had again.

usage: fuzz.py [archives N] [programs N]      N cases of a kind from case 0; without arguments 100,000 of each
       fuzz.py archive K | program K          one case, in this process, with its traceback

What fails is printed; put it into `benchmarks/fuzz/kept.txt`, whose cases the tests run each time.
"""

from __future__ import annotations

import io
import json
import os
import sys
import tarfile
import time
import traceback
import zipfile
from collections import Counter
from functools import lru_cache
from pathlib import Path
from random import Random

from partitor.check import check
from partitor.errors import PartitorError
from partitor.exchange.assignment import Assignment
from partitor.isolation import CallLimits, Failed, Stopped, in_children
from partitor.languages.registry import language_of
from partitor.reading.collect import Batch, Submission, batch_of, unpacked_files
from partitor.source import Source

ROOT = Path(__file__).resolve().parents[1]
KEPT = ROOT / "benchmarks" / "fuzz" / "kept.txt"
CHUNK = {"archive": 200, "program": 20}
LIMITS = {
    "archive": CallLimits(cpu_seconds=60, wall_seconds=180, memory=1_500_000_000),
    "program": CallLimits(cpu_seconds=120, wall_seconds=360, memory=1_500_000_000),
}
SECONDS = 5.0
"""Time of one check here; it must not take more than half as much again of processor time."""
OURS = "Partitor itself failed"
SIGNS = "()[]{}\"';#|`,@ \n:=\\\t<>&*\0\u202e\ufeff\r\x0c∑é"


# -- what is mutated -------------------------------------------------------------------------------


@lru_cache(maxsize=1)
def archives() -> list[tuple[str, bytes]]:
    """Whole archives, projects and notebooks of every kind, small."""
    files = {"ada/main.py": b"print(1)\nprint(2)\n", "bo.js": b"let x = 1;\n", "caf\u00e9/a b.c": b"int x;\n"}
    found = []
    for method in (zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED, zipfile.ZIP_BZIP2, zipfile.ZIP_LZMA):
        found.append(("class.zip", zipped(files, method)))
    for mode, ending in (("w", "tar"), ("w:gz", "tar.gz"), ("w:bz2", "tar.bz2"), ("w:xz", "tar.xz")):
        for form in (tarfile.GNU_FORMAT, tarfile.PAX_FORMAT):
            found.append((f"class.{ending}", tarred(files, mode, form)))
    found.append(
        ("nested.zip", zipped({"a.zip": zipped(files), "b/c.tar.gz": tarred(files, "w:gz"), "d.py": b"x = 1\n"}))
    )
    blocks = {
        "a": {"opcode": "event_whenflagclicked", "next": "b", "inputs": {}, "fields": {}, "topLevel": True},
        "b": {
            "opcode": "control_repeat",
            "next": None,
            "inputs": {"TIMES": [1, [4, "3"]], "SUBSTACK": [2, "c"]},
            "fields": {},
        },
        "c": {
            "opcode": "motion_movesteps",
            "next": None,
            "inputs": {"STEPS": [1, [4, "10"]]},
            "fields": {"X": ["y", None]},
        },
        "d": {"opcode": "procedures_definition", "next": "c", "inputs": {"custom_block": [1, "e"]}, "topLevel": True},
        "e": {"opcode": "procedures_prototype", "mutation": {"proccode": "draw %s", "argumentnames": '["n"]'}},
    }
    project = json.dumps({"targets": [{"name": "Boat", "isStage": False, "blocks": blocks}]}).encode()
    found.append(("boat.sb3", zipped({"project.json": project}, zipfile.ZIP_STORED)))
    found.append(
        ("class.zip", zipped({"ada.sb3": zipped({"project.json": project}, zipfile.ZIP_STORED)}, zipfile.ZIP_STORED))
    )
    cell = {"cell_type": "code", "source": ["x = 1\n", "print(x)"], "metadata": {}, "outputs": [], "execution_count": 1}
    note = {
        "nbformat": 4,
        "nbformat_minor": 5,
        "metadata": {"kernelspec": {"language": "python", "name": "p"}},
        "cells": [cell],
    }
    found.append(("lab.ipynb", json.dumps(note).encode()))
    block = {"type": "controls_if", "inputs": {"IF0": {"block": {"type": "logic_boolean", "fields": {"BOOL": "TRUE"}}}}}
    block["next"] = {"block": {"type": "text_print", "extraState": {"params": ["a"], "name": "f"}}}  # type: ignore[assignment]
    found.append(("w.json", json.dumps({"blocks": {"languageVersion": 0, "blocks": [block]}}).encode()))
    found.append(
        (
            "w.xml",
            b'<xml><block type="a"><field name="N">1</field><statement name="DO"><block type="b"/></statement>'
            b'<next><block type="c"><value name="V"><shadow type="d"/></value></block></next></block></xml>',
        )
    )
    found.append(
        (
            "p.xml",
            b'<project><sprites><sprite name="s"><scripts><script><block s="receiveGo"/><block s="doIf">'
            b'<block var="x"/><script><block s="forward"><l>10</l></block></script></block></script></scripts>'
            b"</sprite></sprites></project>",
        )
    )
    return found


def zipped(files: dict[str, bytes], method: int = zipfile.ZIP_DEFLATED) -> bytes:
    """A ZIP of these files."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", method) as archive:
        for name, data in files.items():
            archive.writestr(name, data)
    return out.getvalue()


def tarred(files: dict[str, bytes], mode: str, form: int = tarfile.GNU_FORMAT) -> bytes:
    """A tar of these files."""
    out = io.BytesIO()
    with tarfile.open(fileobj=out, mode=mode, format=form) as archive:  # type: ignore[call-overload]
        for name, data in files.items():
            member = tarfile.TarInfo(name)
            member.size = len(data)
            archive.addfile(member, io.BytesIO(data))
    return out.getvalue()


@lru_cache(maxsize=1)
def programs() -> list[tuple[str, str]]:
    """The demo's programs in every language, with their file names."""
    folder = ROOT / "demo"
    paths = sorted([*folder.glob("*/submissions/*"), *folder.glob("seed-labels/*"), *folder.glob("*/late/*")])
    named = [p for p in paths if p.is_file() and language_of(p.name) is not None]
    return [(p.name, p.read_text(errors="replace")) for p in named]


def mutated_bytes(drawn: Random, data: bytes) -> bytes:
    """The bytes with some changed, gone, put in, said again or cut off."""
    signs = bytearray(data)
    for _ in range(drawn.choice((1, 1, 2, 4, 12))):
        way, place = drawn.random(), drawn.randrange(len(signs) + 1)
        if way < 0.45 and place < len(signs):
            signs[place] = drawn.choice(
                (0, 255, 127, 128, drawn.randrange(256), signs[place] ^ (1 << drawn.randrange(8)))
            )
        elif way < 0.6:
            del signs[place : place + drawn.choice((1, 2, 4, 30))]
        elif way < 0.75:
            signs[place:place] = drawn.randbytes(drawn.choice((1, 4, 20)))
        elif way < 0.9:
            other = drawn.randrange(len(signs) + 1)
            signs[place:place] = signs[other : other + drawn.choice((4, 40, 400))]
        elif way < 0.95:
            del signs[place:]
        else:
            signs[place : place + 4] = drawn.choice(
                (b"\xff\xff\xff\xff", b"\0\0\0\0", b"\xff\xff\xff\x7f", b"\\ud8", b"NaN,", b"[[[[")
            )
    return bytes(signs)


def mutated_text(drawn: Random, text: str) -> str:
    """The text with some of it gone, put in, moved, or said again, now and then very often."""
    signs = list(text)
    for _ in range(drawn.choice((1, 2, 4, 9))):
        place, way = drawn.randrange(len(signs) + 1), drawn.random()
        if way < 0.3:
            del signs[place : place + drawn.randint(1, 12)]
        elif way < 0.6:
            signs.insert(place, drawn.choice(SIGNS) * drawn.choice((1, 1, 1, 3, 300)))
        else:
            other = drawn.randrange(len(signs) + 1)
            piece = signs[other : other + drawn.randint(1, 60)]
            signs[place:place] = piece * drawn.choice((1, 1, 2, 3, 40))
    return "".join(signs)


# -- one case --------------------------------------------------------------------------------------


def archive_case(number: int) -> tuple[str, bytes]:
    """The mutated archive of this number."""
    drawn = Random(f"archive {number}")
    name, data = drawn.choice(archives())
    return name, mutated_bytes(drawn, data)


def program_case(number: int) -> Source:
    """The mutated program of this number; now and then a text of one language under another's name."""
    drawn = Random(f"program {number}")
    name, text = drawn.choice(programs())
    if drawn.random() < 0.1:
        text = drawn.choice(programs())[1]
    text = mutated_text(drawn, text).replace("\0", "\ufffd").replace("\r", "\n")
    language = language_of(name)
    return Source(name, text, language.id if language else None)


def read_archive(number: int) -> str:
    """What is wrong with reading this case; empty where nothing is."""
    name, data = archive_case(number)
    try:
        batch = batch_of(unpacked_files([(name, data)]))
    except PartitorError:
        return ""
    for one in batch.unreadable:
        if OURS in one.why:
            return f"{one.name}: an error of ours"
    return _not_storable(batch)


def _not_storable(batch: Batch) -> str:
    texts = [u.name + u.why for u in batch.unreadable]
    texts += [s.name + "".join(f.path + f.text for f in s.sources) for s in batch.submissions]
    try:
        return "a NUL is left" if any("\0" in text for text in texts if text.encode("utf-8") is not None) else ""
    except UnicodeEncodeError:
        return "half a character is left"


def check_program(number: int) -> str:
    """What is wrong with checking this case; empty where nothing is."""
    begin = time.process_time()  # of this process, whatever else the machine does
    try:
        check(Submission("fuzz", (program_case(number),)), Assignment(), seconds=SECONDS)
    except PartitorError:
        pass  # too costly even to be read, which is said to people
    took = time.process_time() - begin
    return f"took {took:.1f} s" if took > 1.5 * SECONDS else ""


CASES = {"archive": read_archive, "program": check_program}


def tried(kind: str, number: int) -> str:
    """What is wrong with a case, an error that it raises included."""
    try:
        return CASES[kind](number)
    except Exception as problem:
        frame = traceback.extract_tb(problem.__traceback__)[-1]
        return f"raises {type(problem).__name__} in {Path(frame.filename).name}:{frame.lineno} {frame.name}"


def chunk(given: tuple[str, int, int]) -> list[tuple[int, str]]:
    """The cases of a range in which something is wrong."""
    kind, start, stop = given
    found = ((number, tried(kind, number)) for number in range(start, stop))
    return [(number, said) for number, said in found if said]


# -- many ------------------------------------------------------------------------------------------


def run(kind: str, count: int) -> list[tuple[int, str]]:
    """The first `count` cases of a kind, in child processes; those in which something is wrong."""
    size = CHUNK[kind]
    ranges = [(kind, start, min(start + size, count)) for start in range(0, count, size)]
    failed: list[tuple[int, str]] = []
    begin = time.monotonic()
    for given, answer in zip(ranges, in_children(chunk, ranges, LIMITS[kind], os.cpu_count() or 1), strict=True):
        if isinstance(answer, (Stopped, Failed)):
            failed += _one_by_one(*given)
        else:
            failed += answer
    took = time.monotonic() - begin
    print(f"{count} {kind}s in {took:.0f} s: {len(failed)} raised or over the limits")
    for said, many in Counter(said for _, said in failed).most_common(30):
        first = next(number for number, why in failed if why == said)
        print(f"  {many} times: {said} (first: {kind} {first})")
    return failed


def _one_by_one(kind: str, start: int, stop: int) -> list[tuple[int, str]]:
    """The cases of a range, of which one ended its process."""
    single = [(kind, number, number + 1) for number in range(start, stop)]
    found: list[tuple[int, str]] = []
    for (_, number, _), answer in zip(single, in_children(chunk, single, LIMITS[kind], 1), strict=True):
        if isinstance(answer, (Stopped, Failed)):
            found.append((number, str(answer)))
        else:
            found += answer
    return found


def kept() -> list[tuple[str, int]]:
    """The cases that once failed."""
    lines = KEPT.read_text().splitlines() if KEPT.exists() else []
    return [(kind, int(number)) for kind, number in (line.split()[:2] for line in lines if line and line[0] != "#")]


def main(arguments: list[str]) -> int:
    """The exit status: 1 where any case failed."""
    if len(arguments) == 2 and arguments[0] in CASES:
        said = CASES[arguments[0]](int(arguments[1]))
        print(said or "nothing is wrong")
        return bool(said)
    wanted = dict(zip(arguments[::2], arguments[1::2], strict=True)) or {"archives": "100000", "programs": "100000"}
    failed = [run(kind.removesuffix("s"), int(count)) for kind, count in wanted.items()]
    return int(any(failed))


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
