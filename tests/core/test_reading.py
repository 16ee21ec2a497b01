"""Bytes to submissions: encodings, archives, junk, whose work is whose, and what is refused."""

import io
import tarfile
import zipfile
from pathlib import Path

import pytest

from partitor.errors import UnreadableSubmission
from partitor.reading.archives import Entry, Unpacked, Unpacker, UnpackLimits
from partitor.reading.collect import batch_of, read_batch
from partitor.reading.encoding import decode
from partitor.reading.starter import handed_out_lines
from partitor.source import Source


def zipped(files: dict[str, bytes]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for path, data in files.items():
            archive.writestr(path, data)
    return out.getvalue()


def tarred(*members: tarfile.TarInfo, data: bytes = b"") -> bytes:
    out = io.BytesIO()
    with tarfile.open(fileobj=out, mode="w:gz") as archive:
        for member in members:
            archive.addfile(member, io.BytesIO(data[: member.size]))
    return out.getvalue()


@pytest.mark.parametrize(
    ("data", "text", "encoding"),
    [
        ("print('Ø')\n".encode(), "print('Ø')\n", "utf-8"),
        (b"\xef\xbb\xbfprint(1)\n", "print(1)\n", "utf-8"),
        ("print('ü')\r\n".encode("utf-16"), "print('ü')\n", "utf-16-le"),
        ("print('abc')\n".encode("utf-16-be"), "print('abc')\n", "utf-16-be"),
        (b"a = 1\rb = 2\r", "a = 1\nb = 2\n", "utf-8"),
    ],
)
def test_text_is_decoded_and_its_line_ends_folded(data, text, encoding):
    decoded = decode(data)
    assert decoded is not None
    assert (decoded.text, decoded.encoding) == (text, encoding)


def test_a_legacy_encoding_is_guessed_and_keeps_the_letters():
    decoded = decode("# Frühdienst am Siel, größte Öffnung für März\nprint('Schleuse geöffnet')\n".encode("cp1252"))
    assert decoded is not None
    assert "Frühdienst" in decoded.text


@pytest.mark.parametrize("data", [b"\x89PNG\r\n\x1a\n\x00\x00", bytes(range(256)) * 4, b"PK\x03\x04\x00\x00"])
def test_what_is_no_text_is_none(data):
    assert decode(data) is None


def test_every_entry_below_the_root_is_one_submission_and_one_outer_folder_is_stepped_through():
    inner = zipped({"cy/src/main.py": b"print(3)\n", "cy/src/util.py": b"print(4)\n"})
    data = zipped(
        {
            "class/ada.py": b"print(1)\n",
            "class/bo/main.py": b"print(2)\n",
            "class/bo/more/x.py": b"print(9)\n",
            "class/cy.zip": inner,
            "__MACOSX/class/._ada.py": b"\x00",
            "class/bo/.DS_Store": b"\x00",
            "class/bo/__pycache__/main.pyc": b"\x00",
        }
    )
    unpacked = Unpacker().unpack("class.zip", data)
    batch = batch_of(unpacked)
    assert {s.name: [f.path for f in s.sources] for s in batch.submissions} == {
        "ada": ["ada.py"],
        "bo": ["main.py", "more/x.py"],
        "cy": ["src/main.py", "src/util.py"],
    }
    assert unpacked.junk == 3
    assert batch.unreadable == ()


NOTHING = {
    "class/ada/main.py": b"print(1)\n",
    "class/ada/main.pyc": b"\x00",
    "class/bo/": b"",
    "class/cy/deep/": b"",
    "class/di/Main.class": b"\x00",
    "class/eli.class": b"\x00",
    "class/ada.class": b"\x00",
    "class/.cache/": b"",
    "class/Thumbs.db": b"\x00",
    "__MACOSX/class/._bo": b"\x00",
}


@pytest.mark.parametrize("packed", [True, False])
def test_who_handed_in_nothing_is_told_too(packed: bool, tmp_path: Path):
    """An empty folder, or nothing but what a compiler made, is somebody's entry all the same."""
    if packed:
        batch = batch_of(Unpacker().unpack("class.zip", zipped(NOTHING)))
    else:
        for path, content in NOTHING.items():
            (tmp_path / path).parent.mkdir(parents=True, exist_ok=True)
            if path.endswith("/"):
                (tmp_path / path).mkdir(exist_ok=True)
            else:
                (tmp_path / path).write_bytes(content)
        batch = read_batch(tmp_path)
    assert [(s.name, s.junk) for s in batch.submissions] == [("ada", 1)]
    assert {u.name: u.why.partition("in it")[2] for u in batch.unreadable} == {
        "bo": "; it is empty.",
        "cy": "; it is empty.",
        "di": ", only system or compiled files.",
        "eli": ", only system or compiled files.",
    }


@pytest.mark.parametrize(
    ("files", "read", "unread"),
    [
        ({"ada/main.py": b"print(1)\n", "bo/main.pyc": b"\x00"}, ["ada"], ["bo"]),
        ({"ada/": b"", "bo/main.pyc": b"\x00"}, [], ["ada", "bo"]),
        ({"ada/Main.class": b"\x00", "bo/a.o": b"\x00"}, [], ["ada", "bo"]),
        ({"ada/main.py": b"print(1)\n", "bo/": b"", "__MACOSX/x": b"\x00", ".git/c": b"\x00"}, ["ada"], ["bo"]),
        ({"class/ada.py": b"print(1)\n", "__MACOSX/class/._a": b"\x00", "Thumbs.db": b"\x00"}, ["ada"], []),
    ],
)
def test_a_student_s_folder_is_not_the_outer_one_where_the_others_hold_nothing(
    files: dict[str, bytes], read: list[str], unread: list[str]
):
    batch = batch_of(Unpacker().unpack("class.zip", zipped(files)))
    assert [s.name for s in batch.submissions] == read
    assert [u.name for u in batch.unreadable] == unread


def test_an_archive_of_the_folder_it_was_made_in_is_read(tmp_path: Path):
    """`tar czf class.tgz .` begins with the folder itself."""
    for name in ("ada", "bo", "cy"):
        (tmp_path / name).mkdir()
        (tmp_path / name / "main.py").write_text(f"print({name!r})\n")
    (tmp_path / "cy" / "main.py").unlink()
    out = io.BytesIO()
    with tarfile.open(fileobj=out, mode="w:gz") as archive:
        archive.add(tmp_path, arcname=".")
    batch = batch_of(Unpacker().unpack("class.tgz", out.getvalue()))
    assert [s.name for s in batch.submissions] == ["ada", "bo"]
    assert [u.name for u in batch.unreadable] == ["cy"]


def test_the_pattern_tells_whose_work_a_file_is():
    entries = [
        Entry("ada_11_main.py", b"print(1)"),
        Entry("ada_12_util.py", b"print(2)"),
        Entry("bo_13_a.py", b"print(3)"),
    ]
    batch = batch_of(Unpacked(entries, refused=[]), "{name}_{rest}")
    assert [(s.name, len(s.sources)) for s in batch.submissions] == [("ada", 2), ("bo", 1)]


def test_what_is_no_program_is_said_with_the_reason():
    entries = [Entry("a/notes.docx", b"hello"), Entry("b/main.py", b"  \n"), Entry("c/x.py", b"\x00\x01\x02")]
    batch = batch_of(Unpacked(entries, refused=[]))
    assert batch.submissions == ()
    assert [u.name for u in batch.unreadable] == ["a", "b", "c"]
    assert "notes.docx is in no language that is read here" in batch.unreadable[0].why
    assert "main.py is empty" in batch.unreadable[1].why
    assert "x.py is not a text file" in batch.unreadable[2].why


def test_a_broken_nested_archive_costs_no_other_submission_its_reading():
    batch = batch_of(Unpacked([Entry("ada.zip", b"PK\x03\x04broken"), Entry("bo.py", b"print(1)")], refused=[]))
    assert [s.name for s in batch.submissions] == ["bo"]
    assert "not a whole ZIP archive" in batch.unreadable[0].why


def refused(name: str, data: bytes, **limits: int) -> str:
    with pytest.raises(UnreadableSubmission) as caught:
        Unpacker(UnpackLimits(**limits)).unpack(name, data)
    return str(caught.value)


def read_and_refused(name: str, data: bytes) -> tuple[list[str], list[tuple[str, str]]]:
    unpacked = Unpacker().unpack(name, data)
    return [e.path for e in unpacked.entries], unpacked.refused


def test_paths_that_lead_out_of_the_archive_cost_only_their_file():
    for path in ("../evil.py", "/etc/evil.py", "a/../../evil.py", "C:/evil.py", "..\\evil.py"):
        read, ((shown, why),) = read_and_refused("class.zip", zipped({path: b"x", "ada.py": b"y"}))
        assert read == ["ada.py"]
        assert ".." not in shown
        assert not shown.startswith("/")
        assert why == "has a path that leads out of the archive"


def test_links_cost_only_themselves():
    link, own = tarfile.TarInfo("a/link.py"), tarfile.TarInfo("a/own.py")
    link.type, link.linkname = tarfile.SYMTYPE, "/etc/passwd"
    own.size = 1
    assert read_and_refused("c.tar.gz", tarred(link, own, data=b"x")) == (["a/own.py"], [("a/link.py", "is a link")])
    info = zipfile.ZipInfo("link.py")
    info.external_attr = 0o120777 << 16
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        archive.writestr(info, "/etc/passwd")
        archive.writestr("own.py", "x")
    assert read_and_refused("class.zip", out.getvalue()) == (["own.py"], [("link.py", "is a symbolic link")])


def test_bombs_are_refused_before_they_are_unpacked():
    pieces = {f"{n}.py": b"0" * 1_900_000 for n in range(16)}
    assert "200 times its size" in refused("bomb.zip", zipped(pieces))
    read, ((_, why),) = read_and_refused("class.zip", zipped({"a.py": b"0" * 30_000_000, "b.py": b"1"}))
    assert (read, why) == (["b.py"], "is 30000000 bytes; up to 2000000 are read")
    big = tarfile.TarInfo("a.py")
    big.size = 30_000_000
    assert "times its size" in refused("bomb.tar.gz", tarred(big, data=b"0" * 30_000_000))


def test_limits_name_the_file_and_the_limit():
    assert "more than 2 files" in refused("c.zip", zipped({f"{n}.py": b"x" for n in range(3)}), files=2)
    nested = zipped({"a.zip": zipped({"b.zip": zipped({"c.zip": zipped({"d.py": b"x"})})})})
    batch = batch_of(Unpacked([Entry("ada.zip", nested)], refused=[]))
    assert "3 deep" in batch.unreadable[0].why
    unpacked = Unpacker(UnpackLimits(file_size=10)).unpack("c.zip", zipped({"a.py": b"x" * 11}))
    assert unpacked.refused == [("a.py", "is 11 bytes; up to 10 are read")]


def test_a_folder_is_read_and_links_in_it_are_not_followed(tmp_path):
    (tmp_path / "ada").mkdir()
    (tmp_path / "ada" / "main.py").write_text("print(1)\n")
    (tmp_path / "ada" / "link.py").symlink_to("/etc/passwd")
    (tmp_path / "bo.py").write_text("print(2)\n")
    ada, _ = read_batch(tmp_path).submissions
    assert [s.path for s in ada.sources] == ["main.py"]
    assert [(i.path, i.why) for i in ada.ignored] == [("link.py", "is a symbolic link")]


def test_lines_of_the_starter_code_are_known_again():
    starter = Source("gates.py", "# station\nSTATION = 'x'\nprint(STATION)\n", "python")
    own = Source("ada_gates.py", "# station\nSTATION = 'x'\nprint(STATION)\nprint(1)\nprint(STATION)\n", "python")
    assert handed_out_lines([own], [starter]) == {("ada_gates.py", n) for n in (1, 2, 3)}
