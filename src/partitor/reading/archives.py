"""Archives, unpacked in memory within bounds. Nothing is ever written where an archive says.

A member that cannot be read is refused alone, with a clause that says why; an archive that cannot be opened, or that
passes a limit as a whole, is refused with a sentence that names the file and the limit.
"""

from __future__ import annotations

import bz2
import gzip
import io
import lzma
import tarfile
import zipfile
from collections.abc import Callable, Iterator
from pathlib import PurePosixPath
from typing import Any

import msgspec

from ..errors import UnreadableSubmission
from .junk import is_junk
from .text import printable


class UnpackLimits(msgspec.Struct, frozen=True):
    """Bounds on what an archive may hold; sizes in bytes."""

    file_size: int = 2_000_000
    unpacked: int = 400_000_000
    ratio: int = 200
    files: int = 20_000
    depth: int = 3
    path_depth: int = 20
    path_length: int = 250


class Entry(msgspec.Struct, frozen=True):
    """A file out of a folder or archive: its path below the root, and its bytes."""

    path: str
    data: bytes


class Unpacked(msgspec.Struct):
    """What came out, and what could not be read with the reason."""

    entries: list[Entry]
    refused: list[tuple[str, str]] = []
    left_out: list[str] = []
    """The paths of what is nobody's work."""
    folders: list[str] = []
    """Folders that are told of by themselves, with a slash behind; all that hold nothing are among them."""
    broken_off: list[tuple[str, str]] = []
    """Archives that are damaged in the middle, and what was not read, as a clause."""

    def add_file(self, name: str, data: bytes, limits: UnpackLimits) -> None:
        """Add a file that came by itself, under a name of its own, or say why it is not read."""
        path = _unused(_inside(printable(name)), {e.path for e in self.entries})
        if len(data) > limits.file_size and not is_archive(path):
            self.refused.append((path, too_large(len(data), limits.file_size)))
        else:
            self.entries.append(Entry(path, data))

    @property
    def junk(self) -> int:
        """How many files were left out."""
        return len(self.left_out)


ARCHIVES = (".zip", ".tar", ".tar.gz", ".tgz", ".tar.bz2", ".tar.xz")


def is_archive(path: str) -> bool:
    """True where the name is an archive's."""
    return path.lower().endswith(ARCHIVES)


def archive_stem(path: str) -> str:
    """The file name without its archive ending.

    >>> archive_stem("work/ada.tar.gz")
    'ada'
    """
    name = PurePosixPath(path).name
    for ending in sorted(ARCHIVES, key=len, reverse=True):
        if name.lower().endswith(ending):
            return name[: -len(ending)]
    return name


class MemberRefused(Exception):
    """One file of an archive cannot be read; the message is a clause that can follow its path."""


class UnpacksTooFar(Exception):
    """A compressed stream goes on beyond the limit; the message is a clause that can follow the archive's name."""


class Member(msgspec.Struct, frozen=True):
    """A file or folder as an archive lists it."""

    path: str
    size: int
    """Bytes, as the archive says."""
    read: Callable[[int], bytes] | None
    """Gives at most so many bytes. Raises MemberRefused, or whatever a decoder raises on damaged data. None for a
    folder."""


class Unpacker:
    """Unpacks one archive with everything nested in it; the bounds hold for all of it together."""

    def __init__(self, limits: UnpackLimits | None = None) -> None:
        self.limits = limits or UnpackLimits()
        self.size = 0
        self.count = 0

    def unpack(self, name: str, data: bytes, depth: int = 1) -> Unpacked:
        """All files of the archive `name` that can be read. Raises UnreadableSubmission where none can, or where the
        archive passes a limit."""
        if depth > self.limits.depth:
            raise UnreadableSubmission(f"{name}: archives inside archives go more than {self.limits.depth} deep")
        result = Unpacked([])
        is_zip = name.lower().endswith(".zip") or data[:4] == b"PK\x03\x04"
        try:
            for member in self._zip(name, data) if is_zip else self._tar(name, data):
                self._add(name, member, result)
        except UnreadableSubmission:
            raise
        except UnpacksTooFar as problem:
            if not result.entries:
                raise UnreadableSubmission(f"{name}: {problem}") from problem
            result.broken_off.append((name, f"{problem}, so the rest of it was not read"))
        except Exception as problem:  # decoders of damaged data raise errors of every kind; each means the same here
            if not result.entries:
                kind = "ZIP" if is_zip else "tar"
                raise UnreadableSubmission(f"{name}: is not a whole {kind} archive") from problem
            last = result.entries[-1].path
            result.broken_off.append((name, f"is damaged after {last}; what follows in it was not read"))
        return result

    def _add(self, name: str, member: Member, result: Unpacked) -> None:
        """Put one member where it belongs in `result`."""
        path = printable(member.path)
        try:
            path = safe_path(path, self.limits)
            if member.read is None:
                if len(result.folders) < self.limits.files and path:
                    result.folders.append(path + "/")
            elif not path:
                raise MemberRefused("has no name")
            elif is_junk(path):
                result.left_out.append(path)
            else:
                result.entries.append(Entry(path, self._content(name, path, member.size, member.read)))
        except MemberRefused as problem:
            self._count_one(name)
            result.refused.append((_inside(path), str(problem)))

    def _count_one(self, name: str) -> None:
        self.count += 1
        if self.count > self.limits.files:
            raise UnreadableSubmission(f"{name}: holds more than {self.limits.files} files")

    def _content(self, name: str, path: str, size: int, read: Callable[[int], bytes]) -> bytes:
        self._count_one(name)
        most = self.limits.unpacked if is_archive(path) else self.limits.file_size
        if size > most:
            raise MemberRefused(too_large(size, most))
        if self.size + max(size, 0) > self.limits.unpacked:
            raise UnreadableSubmission(f"{name}: unpacks to more than {self.limits.unpacked // 1_000_000} MB")
        try:
            content = read(most + 1)
        except (MemberRefused, UnpacksTooFar):
            raise
        except Exception as problem:  # as above: a damaged member, whatever its decoder calls it
            raise MemberRefused("is damaged inside the archive") from problem
        if len(content) > most:
            raise MemberRefused(f"is more than {most} bytes; the archive says it is less")
        self.size += len(content)
        return content

    def _zip(self, name: str, data: bytes) -> Iterator[Member]:
        archive = zipfile.ZipFile(io.BytesIO(data))
        infos = archive.infolist()
        read = sum(i.file_size for i in infos if is_archive(i.filename) or i.file_size <= self.limits.file_size)
        if read > self.limits.ratio * max(len(data), 10_000):
            raise UnreadableSubmission(
                f"{name}: unpacks to more than {self.limits.ratio} times its size, which no honest archive does"
            )
        for info in infos:
            reader = None if info.is_dir() else _zip_reader(archive, info)
            yield Member(_zip_name(info), info.file_size, reader)

    def _tar(self, name: str, data: bytes) -> Iterator[Member]:
        most = min(self.limits.unpacked, self.limits.ratio * max(len(data), 10_000))
        why = f"unpacks to more than {most // 1_000_000} MB or {self.limits.ratio} times its size"
        stream: Any = Bounded(_decompressed(data), most, why)
        with tarfile.open(fileobj=stream, mode="r:") as archive:
            for member in archive:
                yield Member(member.name, member.size, None if member.isdir() else _tar_reader(archive, member))


class Bounded:
    """A stream of decompressed bytes that raises UnpacksTooFar with `why` beyond `most` bytes."""

    def __init__(self, stream: io.BufferedIOBase, most: int, why: str) -> None:
        self.stream = stream
        self.most = most
        self.why = why

    def read(self, size: int = -1) -> bytes:
        """Up to `size` bytes from where the stream is."""
        left = self.most - self.stream.tell()
        data = self.stream.read(left + 1 if size < 0 else min(size, left + 1))
        if len(data) > left:
            raise UnpacksTooFar(self.why)
        return data

    def seek(self, place: int, whence: int = 0) -> int:
        """Go to a place, counted from the stream's beginning or from where it is."""
        place += self.stream.tell() if whence == 1 else 0
        if place > self.most:
            raise UnpacksTooFar(self.why)
        return self.stream.seek(place)

    def tell(self) -> int:
        """Bytes from the stream's beginning."""
        return self.stream.tell()


def _decompressed(data: bytes) -> io.BufferedIOBase:
    """The tar archive inside a compressed one, by the first bytes."""
    raw = io.BytesIO(data)
    if data.startswith(b"\x1f\x8b"):
        return gzip.GzipFile(fileobj=raw)
    if data.startswith(b"BZh"):
        return bz2.BZ2File(raw)
    return lzma.LZMAFile(raw) if data.startswith(b"\xfd7zXZ\x00") else raw


def _tar_reader(archive: tarfile.TarFile, member: tarfile.TarInfo) -> Callable[[int], bytes]:
    def read(most: int) -> bytes:
        if not member.isfile():
            raise MemberRefused("is a link" if member.issym() or member.islnk() else "is no ordinary file")
        stream = archive.extractfile(member)
        content = stream.read(most) if stream else b""
        if len(content) < min(member.size, most):
            raise MemberRefused("is cut off inside the archive")
        return content

    return read


def _zip_name(info: zipfile.ZipInfo) -> str:
    """The member's path; names without the UTF-8 flag are tried as UTF-8 first."""
    if info.flag_bits & 0x800:
        return info.filename
    try:
        return info.filename.encode("cp437").decode("utf-8")
    except (UnicodeEncodeError, UnicodeDecodeError):
        return info.filename


def _zip_reader(archive: zipfile.ZipFile, info: zipfile.ZipInfo) -> Callable[[int], bytes]:
    def read(most: int) -> bytes:
        if (info.external_attr >> 16) & 0o170000 == 0o120000:
            raise MemberRefused("is a symbolic link")
        if info.flag_bits & 0x1:
            raise MemberRefused("is locked with a password")
        with archive.open(info) as stream:
            return stream.read(most)

    return read


def safe_path(path: str, limits: UnpackLimits) -> str:
    """The path with forward slashes. Raises MemberRefused where it leaves the archive or is too deep."""
    clean = path.replace("\\", "/")
    pure = PurePosixPath(clean)
    if pure.is_absolute() or ".." in pure.parts or (len(clean) > 1 and clean[1] == ":"):
        raise MemberRefused("has a path that leads out of the archive")
    if len(pure.parts) > limits.path_depth:
        raise MemberRefused(f"lies more than {limits.path_depth} folders deep")
    if len(clean) > limits.path_length:
        raise MemberRefused(f"has a path of more than {limits.path_length} characters")
    return "/".join(pure.parts)


def _unused(path: str, taken: set[str]) -> str:
    """The path, or one with a number where it is taken.

    >>> _unused("gate.py", {"gate.py"})
    'gate (2).py'
    """
    pure, number = PurePosixPath(path), 2
    while path in taken:
        path, number = str(pure.with_name(f"{pure.stem} ({number}){pure.suffix}")), number + 1
    return path


def too_large(size: int, most: int) -> str:
    """The clause for a file beyond the limit."""
    return f"is {size} bytes; up to {most} are read"


def _inside(path: str) -> str:
    """A refused member's path in a form that can be shown and sorted below a root: nothing absolute, nothing empty.

    >>> _inside("../../etc/passwd"), _inside("")
    ('etc/passwd', '(no name)')
    """
    parts = [part for part in path.replace("\\", "/").split("/") if part not in ("", ".", "..")]
    return "/".join(parts[:20])[:300] or "(no name)"
