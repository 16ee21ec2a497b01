"""Archives, unpacked in memory within bounds. Nothing is ever written where an archive says.

Each limit that is passed refuses the archive with a sentence that names the file and the limit.
"""

from __future__ import annotations

import io
import lzma
import tarfile
import zipfile
import zlib
from collections.abc import Iterator
from pathlib import PurePosixPath

import msgspec

from ..errors import UnreadableSubmission
from .junk import is_junk


class UnpackLimits(msgspec.Struct, frozen=True):
    """Bounds on what an archive may hold; sizes in bytes."""

    file_size: int = 2_000_000
    unpacked: int = 400_000_000
    ratio: int = 200
    files: int = 20_000
    depth: int = 3
    path_depth: int = 20


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


class Unpacker:
    """Unpacks one archive with everything nested in it; the bounds hold for all of it together."""

    def __init__(self, limits: UnpackLimits | None = None) -> None:
        self.limits = limits or UnpackLimits()
        self.size = 0
        self.count = 0

    def unpack(self, name: str, data: bytes, depth: int = 1) -> Unpacked:
        """All files of the archive `name`. Raises UnreadableSubmission where it must be refused."""
        if depth > self.limits.depth:
            raise UnreadableSubmission(f"{name}: archives inside archives go more than {self.limits.depth} deep")
        result = Unpacked([])
        for path, size, read in self._members(name, data):
            if read is not None:
                self._member(name, path, size, read, result)
            elif len(result.folders) < self.limits.files and PurePosixPath(path).parts:
                result.folders.append(safe_path(name, path, self.limits) + "/")
        return result

    def _member(self, name: str, path: str, size: int, read: object, result: Unpacked) -> None:
        clean = safe_path(name, path, self.limits)
        if is_junk(clean):
            result.left_out.append(clean)
            return
        self.count += 1
        if self.count > self.limits.files:
            raise UnreadableSubmission(f"{name}: holds more than {self.limits.files} files")
        nested = is_archive(clean)
        most = self.limits.unpacked if nested else self.limits.file_size
        if size > most:
            result.refused.append((clean, f"is {size} bytes; up to {most} are read"))
            return
        self.size += size
        if self.size > self.limits.unpacked:
            raise UnreadableSubmission(f"{name}: unpacks to more than {self.limits.unpacked // 1_000_000} MB")
        content = read(most)  # type: ignore[operator]
        if isinstance(content, str):
            result.refused.append((clean, content))
            return
        result.entries.append(Entry(clean, content))

    def _members(self, name: str, data: bytes) -> Iterator[tuple[str, int, object]]:
        """(path, bytes, how to read it) of each file; None in the last place for a folder."""
        if name.lower().endswith(".zip") or data[:4] == b"PK\x03\x04":
            yield from self._zip(name, data)
        else:
            yield from self._tar(name, data)

    def _zip(self, name: str, data: bytes) -> Iterator[tuple[str, int, object]]:
        try:
            archive = zipfile.ZipFile(io.BytesIO(data))
            infos = archive.infolist()
        except (zipfile.BadZipFile, ValueError, NotImplementedError, OSError) as problem:
            raise UnreadableSubmission(f"{name}: is not a whole ZIP archive ({problem})") from problem
        unpacked = sum(info.file_size for info in infos)
        if unpacked > self.limits.ratio * max(len(data), 10_000):
            raise UnreadableSubmission(
                f"{name}: unpacks to more than {self.limits.ratio} times its size, which no honest archive does"
            )
        for info in infos:
            if info.is_dir():
                yield _zip_name(info), 0, None
                continue
            if (info.external_attr >> 16) & 0o170000 == 0o120000:
                raise UnreadableSubmission(f"{name}: {_shown(info.filename)} is a symbolic link")
            yield _zip_name(info), info.file_size, _zip_reader(archive, info)

    def _tar(self, name: str, data: bytes) -> Iterator[tuple[str, int, object]]:
        most = min(self.limits.unpacked, self.limits.ratio * max(len(data), 10_000))
        try:
            with tarfile.open(fileobj=io.BytesIO(data)) as archive:
                total = 0
                for member in archive:
                    if member.isdir():
                        yield member.name, 0, None
                        continue
                    if not member.isfile():
                        kind = "a link" if member.issym() or member.islnk() else "no ordinary file"
                        raise UnreadableSubmission(f"{name}: {_shown(member.name)} is {kind}")
                    total += member.size
                    if total > most:
                        raise UnreadableSubmission(
                            f"{name}: unpacks to more than {most // 1_000_000} MB or {self.limits.ratio} times its size"
                        )
                    stream = archive.extractfile(member)
                    content = stream.read() if stream else b""
                    yield member.name, member.size, (lambda most, content=content: content)
        except (tarfile.TarError, EOFError, OSError, zlib.error, lzma.LZMAError) as problem:
            raise UnreadableSubmission(f"{name}: is not a whole tar archive ({problem})") from problem


def _zip_name(info: zipfile.ZipInfo) -> str:
    """The member's path; names without the UTF-8 flag are tried as UTF-8 first."""
    if info.flag_bits & 0x800:
        return info.filename
    try:
        return info.filename.encode("cp437").decode("utf-8")
    except (UnicodeEncodeError, UnicodeDecodeError):
        return info.filename


def _zip_reader(archive: zipfile.ZipFile, info: zipfile.ZipInfo) -> object:
    def read(most: int) -> bytes | str:
        if info.flag_bits & 0x1:
            return "is locked with a password"
        try:
            with archive.open(info) as stream:
                content = stream.read(most + 1)
        except (zipfile.BadZipFile, zlib.error, EOFError, NotImplementedError, OSError, RuntimeError):
            return "is damaged inside the archive"
        return content if len(content) <= most else f"is more than {most} bytes; it says it is less"

    return read


def safe_path(archive: str, path: str, limits: UnpackLimits) -> str:
    """The path with forward slashes. Raises UnreadableSubmission where it leaves the archive."""
    clean = path.replace("\\", "/")
    pure = PurePosixPath(clean)
    if pure.is_absolute() or ".." in pure.parts or (len(clean) > 1 and clean[1] == ":"):
        raise UnreadableSubmission(f"{archive}: the path {_shown(path)} leads out of the archive")
    if "\x00" in clean or not pure.parts or len(pure.parts) > limits.path_depth or len(clean) > 400:
        raise UnreadableSubmission(f"{archive}: the path {_shown(path)} is too deep or not usable")
    return "/".join(pure.parts)


def _shown(path: str) -> str:
    return repr(path if len(path) <= 80 else path[:77] + "…")
