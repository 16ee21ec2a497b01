"""Whose work is whose, from the names that course systems write."""

import pytest

from courses.roster import Row, match_name, plain, read_roster
from partitor.errors import PartitorError

CLASS = [
    Row("Ida Holm", "SF101", ("iholm",)),
    Row("Åse Ødegård", "SF102", ("aode@example.invalid",)),
    Row("Tomas Reed", "SF103"),
    Row("Tomas Reed-Lund", "SF104"),
    Row("Wilma Strand", "SF105"),
]


@pytest.mark.parametrize(
    ("received", "name"),
    [
        ("Ida Holm_SF101_gates.py", "Ida Holm"),
        ("Holm, Ida", "Ida Holm"),
        ("holm_ida_12345_assignsubmission_file", "Ida Holm"),
        ("iholm_gates", "Ida Holm"),
        ("Ase Odegard", "Åse Ødegård"),
        ("ØDEGÅRD åse", "Åse Ødegård"),
        ("aode_attempt_2", "Åse Ødegård"),
        ("SF104", "Tomas Reed-Lund"),
        ("Wilma Strnad", "Wilma Strand"),
        ("WilmaStrand", "Wilma Strand"),
        ("Wilma Strand_SF105_LATE", "Wilma Strand"),
    ],
)
def test_a_name_is_matched_however_it_is_written(received, name):
    found = match_name(received, CLASS)
    assert found is not None
    assert CLASS[found].name == name


@pytest.mark.parametrize("received", ["", "gates.py", "Mystery Guest", "Tomas", "SF999", "12345", "../..", "🐟"])
def test_a_name_that_fits_none_or_several_is_left_to_the_teacher(received):
    assert match_name(received, CLASS) is None


def test_plain_names_have_no_accents_signs_or_order():
    assert plain("Ødegård, Åse") == plain("ase ODEGARD") == "ase odegard"


@pytest.mark.parametrize(
    ("data", "names"),
    [
        (b"name,number\nIda Holm,1\n\n", ["Ida Holm"]),
        (b"\xef\xbb\xbfName;Login\nIda Holm;iholm\n", ["Ida Holm"]),
        (b"first name\tlast name\nIda\tHolm\n", ["Ida Holm"]),
        ("name\nJosé\n".encode("cp1252"), ["José"]),
        (b'name\n"Holm, Ida"\n', ["Holm, Ida"]),
        (b"name\r\n  Ida   Holm  \r\n", ["Ida Holm"]),
    ],
)
def test_a_class_list_is_read_in_the_forms_that_spreadsheets_save(data, names):
    assert [row.name for row in read_roster(data)] == names


@pytest.mark.parametrize("data", [b"", b"\n", b"name\n", b"grade\n1\n", b"name,number\n,1\n", b"name\nA\nA\n"])
def test_a_class_list_without_names_is_refused_with_a_sentence(data):
    with pytest.raises(PartitorError, match="class list"):
        read_roster(data)
