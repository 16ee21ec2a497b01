"""Block programs from their files: read as text, checked like any other, suggested in blocks."""

import io
import json
import zipfile

import pytest

from core.builders import DEMO
from partitor.check import check
from partitor.exchange.assignment import Assignment
from partitor.reading.archives import Entry
from partitor.reading.blocks import block_sheets, rendered
from partitor.reading.collect import Submission, Unreadable, submission_of


class Project:
    """Builds the project.json of a block project."""

    def __init__(self) -> None:
        self.blocks: dict[str, dict[str, object]] = {}

    def stack(self, *steps: tuple[str, dict[str, object], dict[str, object]], top: bool = True) -> str:
        """Blocks one below the other: (opcode, inputs, fields)."""
        keys = [f"b{len(self.blocks) + k}" for k in range(len(steps))]
        for k, (opcode, inputs, fields) in enumerate(steps):
            self.blocks[keys[k]] = {
                "opcode": opcode,
                "next": keys[k + 1] if k + 1 < len(keys) else None,
                "parent": keys[k - 1] if k else None,
                "inputs": inputs,
                "fields": fields,
                "topLevel": top and k == 0,
                "shadow": False,
            }
        return keys[0]

    def archive(self) -> bytes:
        """The project as the archive that is handed in."""
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w") as archive:
            target = {"name": "Boat", "isStage": False, "blocks": self.blocks}
            archive.writestr("project.json", json.dumps({"targets": [target]}))
        return out.getvalue()


def number(value: int) -> list[object]:
    return [1, [4, str(value)]]


FLAG = ("event_whenflagclicked", {}, {})


def row(steps: int, turn: int) -> list[tuple[str, dict[str, object], dict[str, object]]]:
    return [
        ("motion_movesteps", {"STEPS": number(steps)}, {}),
        ("motion_turnright", {"DEGREES": number(turn)}, {}),
        ("control_wait", {"DURATION": number(1)}, {}),
    ]


def submitted(name: str, data: bytes) -> Submission:
    result = submission_of("Bo Reed", [Entry(name, data)], [])
    assert isinstance(result, Submission)
    return result


def test_a_project_is_read_sprite_by_sprite():
    project = Project()
    inner = project.stack(*row(10, 90), top=False)
    project.stack(FLAG, ("control_repeat", {"TIMES": number(4), "SUBSTACK": [2, inner]}, {}))
    project.stack(("looks_say", {"MESSAGE": [1, [10, "ahoy"]]}, {}))
    (source,) = submitted("ferry.sb3", project.archive()).sources
    assert source.path == "ferry.sb3/Boat"
    assert source.text == (
        "def when_flagclicked():\n    while repeat(4):\n        movesteps(10)\n        turnright(90)\n        wait(1)\n"
        '\n\ndef unused_stack_say():\n    say("ahoy")\n'
    )


def test_copies_of_blocks_are_found_and_suggested_without_a_patch():
    project = Project()
    project.stack(FLAG, *row(10, 90), *row(20, 90), *row(30, 90), *row(40, 90))
    report = check(submitted("ferry.sb3", project.archive()), Assignment())
    (finding,) = [f for f in report.findings if f.rule == "repeated-run"]
    suggestion = next(s for s in report.suggestions if s.id == finding.suggestion)
    assert (suggestion.status, suggestion.patch, suggestion.diff) == ("outline", None, "")
    assert "movesteps(" in suggestion.outline
    assert "for " in suggestion.outline


def test_a_number_in_a_text_is_joined_to_it_in_the_words_of_blocks():
    """The loop is proved, text and all, and told without anything that blocks have not."""
    labels = DEMO.parent / "seed-labels" / "labels.xml"
    report = check(submitted("labels.xml", labels.read_bytes()), Assignment())
    (suggestion,) = report.suggestions
    assert suggestion.outline.endswith('text_print(join("bag ", bag))\n        seal_bag(bag + 10)')
    assert suggestion.why_not == "blocks are put together by hand, not patched"
    assert [(step.kind, step.lines) for step in report.worked_answer.steps] == [("loop", 4)]


def test_a_stack_that_nothing_starts_is_said():
    project = Project()
    project.stack(FLAG, *row(10, 90))
    project.stack(*row(5, 5))
    report = check(submitted("ferry.sb3", project.archive()), Assignment())
    assert [f.rule for f in report.findings] == ["uncalled-function"]


WORKSPACE = """<xml xmlns="https://example.invalid/blocks">
<block type="procedures_defnoreturn"><field name="NAME">open gate</field>
 <mutation><arg name="level"/></mutation>
 <statement name="STACK"><block type="text_print"><value name="TEXT"><block type="variables_get"><field name="VAR">level</field></block></value></block></statement>
</block>
<block type="controls_if"><mutation else="1"/>
 <value name="IF0"><block type="logic_compare"><field name="OP">GT</field>
  <value name="A"><block type="variables_get"><field name="VAR">tide</field></block></value>
  <value name="B"><shadow type="math_number"><field name="NUM">3</field></shadow></value></block></value>
 <statement name="DO0"><block type="procedures_callnoreturn"><mutation name="open gate"><arg name="level"/></mutation>
  <value name="ARG0"><block type="math_number"><field name="NUM">5</field></block></value></block></statement>
 <statement name="ELSE"><block type="variables_set"><field name="VAR">tide</field>
  <value name="VALUE"><block type="math_number"><field name="NUM">0</field></block></value></block></statement>
</block>
</xml>"""


def test_a_workspace_in_xml_is_read():
    (sheet,) = block_sheets("gates.xml", WORKSPACE.encode())
    text = rendered(sheet)
    assert "def open_gate(level):\n    text_print(level)\n" in text
    assert "    if (my.tide > 3):\n        open_gate(5)\n    else:\n        my.tide = 0\n" in text


def test_a_workspace_in_json_is_read():
    loop = {
        "type": "controls_repeat_ext",
        "inputs": {
            "TIMES": {"shadow": {"type": "math_number", "fields": {"NUM": 3}}},
            "DO": {
                "block": {
                    "type": "text_print",
                    "inputs": {"TEXT": {"shadow": {"type": "text", "fields": {"TEXT": "hi"}}}},
                }
            },
        },
        "next": {"block": {"type": "beep"}},
    }
    data = json.dumps({"blocks": {"languageVersion": 0, "blocks": [loop]}}).encode()
    (source,) = submitted("w.json", data).sources
    assert source.text == 'def main():\n    while repeat_ext(3):\n        text_print("hi")\n    beep()\n'


PROJECT = """<project name="tide"><sprites><sprite name="Gull">
<scripts><script x="1" y="2"><block s="receiveGo"></block><custom-block s="fly %n far"><l>10</l></custom-block>
<block s="doRepeat"><l>3</l><script><block s="forward"><l>5</l></block></script></block></script></scripts>
</sprite></sprites><blocks><block-definition s="fly %'steps' far"><script><block s="forward"><block var="steps"/></block></script></block-definition></blocks></project>"""


def test_a_project_in_xml_is_read_with_its_custom_blocks():
    sources = {s.path: s.text for s in submitted("tide.xml", PROJECT.encode()).sources}
    assert sources["tide.xml/custom blocks"] == "def fly_far(steps):\n    forward(steps)\n"
    assert "    fly_far(10)\n    while doRepeat(3):\n        forward(5)\n" in sources["tide.xml/Gull"]


@pytest.mark.parametrize(
    ("name", "data", "why"),
    [
        ("a.sb3", b"PK nothing", "not a whole project"),
        ("a.xml", b"<xml><block", "not whole XML"),
        ("a.xml", b'<!DOCTYPE x [<!ENTITY a "b">]><xml><block/></xml>', "a document type"),
        ("a.json", b'{"blocks": {"languageVersion": 0}', "not whole JSON"),
        ("a.xml", b"<xml><block type='x'/></xml>x", "not whole XML"),
    ],
)
def test_what_is_broken_is_said(name, data, why):
    result = submission_of("Bo Reed", [Entry(name, data)], [])
    assert isinstance(result, Unreadable)
    assert why in result.why


def test_a_chain_that_goes_round_ends():
    project = Project()
    first = project.stack(FLAG, *row(10, 90))
    project.blocks["b3"]["next"] = first
    assert len(submitted("a.sb3", project.archive()).sources[0].text.split("\n")) < 20
