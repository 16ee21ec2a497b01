"""Pages: their scripts are read where they stand, and what stands around them stays."""

from __future__ import annotations

from textwrap import dedent

import pytest
from hypothesis import given
from hypothesis import strategies as st

from core.builders import named
from partitor.languages.javascript.pages import code_spans, is_page, masked, scripts_of, told_outside
from partitor.languages.registry import language_of
from partitor.reading.archives import Entry
from partitor.reading.collect import Submission, submission_of

PAGE = dedent("""\
    <!DOCTYPE html>
    <html>
    <head>
      <!-- <script>old();</script> -->
      <script type="application/json">{"gates": [1, 2]}</script>
      <script src='lib.js?x="1>2"' defer></script>
      <script>
        function openNorth() {
          const door = document.getElementById("north");
          door.className = "open";
          door.textContent = "north is open";
          console.log("north");
        }
        function openSouth() {
          const door = document.getElementById("south");
          door.className = "open";
          door.textContent = "south is open";
          console.log("south");
        }
      </script>
    </head>
    <body>
      <button onclick="openNorth()">North</button>
      <button onclick='openSouth()'>South</button>
      <SCRIPT>
        console.log("gate", 1);
        console.log("gate", 2);
        console.log("gate", 3);
        console.log("gate", 4);
      </SCRIPT>
    </body>
    </html>
    """)


def test_scripts_stand_in_their_order_and_comments_and_data_are_none():
    loads = [(s.loads, s.plain) for s in scripts_of(PAGE.encode())]
    assert loads == [('lib.js?x="1>2"', False), ("", True), ("", True)]


def test_a_script_that_is_never_closed_goes_on_to_the_end():
    assert code_spans(b"<p>x</p><script>let a = 1;") == [(16, 26)]


def test_modules_of_a_page_keep_their_names_to_themselves():
    module = b'<body><script type="module">let a = 1;</script>'
    assert len(code_spans(module)) == 1
    both = module + b"<script>let b = 2;</script>"
    assert [both[a:b] for a, b in code_spans(both)] == [b"let b = 2;"]


@given(st.text(alphabet="<>/script! -=\"'\nabc{};", max_size=60), st.text(alphabet="let a=1;\n", max_size=20))
def test_every_byte_of_the_code_stays_where_it_is(around, code):
    text = f"<p>{around}<script>{code}</script>".encode()
    blank = masked(text)
    assert len(blank) == len(text)
    assert blank.count(b"\n") == text.count(b"\n")
    inside = {k for start, stop in code_spans(text) for k in range(start, stop)}
    assert all(blank[k] == (text[k] if k in inside else blank[k]) for k in range(len(text)))
    assert all(blank[k : k + 1].isspace() for k in range(len(text)) if k not in inside)


@pytest.mark.parametrize("script", ["let a = 1;", "// <p>\nlet a;", "/* <html> */", "a < b", ""])
def test_a_script_is_no_page(script):
    assert not is_page(script.encode())
    assert masked(script.encode()) == script.encode()


def test_handlers_tell_names():
    assert {"openNorth", "openSouth"} <= told_outside(PAGE.encode())
    assert "old" not in told_outside(PAGE.encode())


def test_a_page_without_scripts_is_named_and_not_read():
    entries = [Entry("a.html", b"<p>hello</p>"), Entry("a.js", b"let a = 1;\n")]
    found = submission_of("ada", entries, [])
    assert isinstance(found, Submission)
    assert [i.path for i in found.ignored] == ["a.html"]
    assert [s.path for s in found.sources] == ["a.js"]
    assert language_of("a.html", PAGE).id == "javascript"


def test_what_the_handlers_name_stays_and_the_page_around_it_too():
    report = named({"index.html": PAGE}, "javascript")
    assert {f.rule for f in report.findings} >= {"twin-functions", "repeated-run"}
    answer = report.worked_answer.files["index.html"]
    twins = next(s for s in report.suggestions if "openDoor" in s.title)
    assert twins.status == "proved"
    assert '+      openDoor("south");' in twins.diff
    assert "-    function openNorth" not in twins.diff
    assert "+    function openDoor(name) {" in twins.diff
    assert "    for (let gate = 1; gate < 5; gate++) {\n      console.log" in answer
    kept = [line for line in PAGE.split("\n") if line.lstrip().startswith("<")]
    assert [line for line in answer.split("\n") if line.lstrip().startswith("<")] == kept


def test_nothing_is_taken_out_across_two_scripts():
    page = PAGE.replace(
        '    console.log("gate", 3);', '  </SCRIPT>\n  <p></p>\n  <SCRIPT>\n    console.log("gate", 3);'
    )
    report = named({"index.html": page}, "javascript")
    loop = next(s for s in report.suggestions if s.kind == "loop")
    assert loop.status == "outline"


def test_a_handler_calls_a_function_so_it_is_not_uncalled():
    page = '<html><body onload="start()"><script>\nfunction start() {\n  let a = 1;\n  alert(a);\n}\n</script></body></html>\n'
    assert not named({"a.html": page}, "javascript").findings
    script = "function start() {\n  let a = 1;\n  console.log(a);\n}\nconsole.log(2);\n"
    loaded = {"a.html": '<body onload="start()"><script src="a.js"></script></body>\n', "a.js": script}
    assert not named(loaded, "javascript").findings
    assert [f.rule for f in named({"a.js": script}, "javascript").findings] == ["uncalled-function"]


def test_a_variable_of_the_page_that_another_script_uses_is_not_hidden_in_a_function():
    copies = "\n".join(
        f'const {n} = prompt("{q}?");\nif ({n} > 3) {{\n  console.log("much", {n});\n  document.title = "b" + {n};\n}}'
        for n, q in (("a", "first"), ("b", "second"))
    )
    both = {"a.js": copies + "\n", "b.js": "document.body.onclick = () => console.log(a);\n"}
    assert not any(s.status == "proved" for s in named(both, "javascript").suggestions)
    apart = {**both, "b.js": "function f(a) { console.log(a); }\nf(2);\n"}
    assert any(s.status == "proved" for s in named(apart, "javascript").suggestions)
