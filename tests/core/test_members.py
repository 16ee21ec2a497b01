"""Methods of objects that no parameter names (`this.sell(…)`, bare members), and functions that handlers stand in."""

from __future__ import annotations

from pathlib import Path

import pytest

from core.builders import read, report, rules, worked
from core.runners import can_run, outputs
from core.sweeps import Group, proved_in, require_same
from core.wild_braces import wild_class
from core.wild_handlers import wild_handlers
from partitor.suggestions.edits import rewritten
from partitor.suggestions.proof import NewFunction, prove

BODY = """    this.sold += 1;
    this.log.push("a cup");
    console.log("sold " + this.sold);
    if (this.sold > 2) {
      console.log("that was the last");
    }
"""
KIOSK = f"""class Kiosk {{
  sold = 0;
  log = [];

  tea() {{
    console.log("tea");
{BODY}  }}

  soup() {{
{BODY}    console.log("soup");
  }}

  cake() {{
{BODY}    return this.sold;
  }}
}}

const kiosk = new Kiosk();
kiosk.tea();
kiosk.soup();
console.log(kiosk.cake());
"""


def statuses(text: str, language: str = "javascript") -> set[str]:
    """The statuses of suggestions for a function."""
    return {s.status for s in report(text, language=language).suggestions if s.kind == "function"}


def test_copies_that_use_their_object_become_its_method() -> None:
    after = worked(KIOSK, "javascript")
    name = after.split("();\n", 2)[0].rsplit("this.", 1)[1] if "this." in after else ""
    assert after.count(f"    this.{name}();\n") == 3
    assert f"\n\n  {name}() {{\n    this.sold += 1;\n" in after
    assert after.count("a cup") == 1


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("class Kiosk {", "class Kiosk extends Shop {"),
        ("kiosk.tea();", 'document.addEventListener("click", kiosk.tea);'),
        ("kiosk.tea();", "kiosk.tea.call(other);"),
        ("  tea() {", "  static tea() {"),
        ("  tea() {", "  get tea() {"),
        ("  tea() {", "  async tea() {"),
        ("kiosk.tea();", "Kiosk.prototype.tea = other;"),
        ("const kiosk", "class Kiosk {}\nconst kiosk"),
        ("kiosk.tea();", "const { tea } = kiosk;"),
        ("kiosk.tea();", 'const kept = { sold: 3, log: [] };\nkept["tea"] = kiosk["tea"];'),
    ],
    ids=[
        "unknown base",
        "handed on",
        "called for another",
        "static",
        "getter",
        "async",
        "prototype",
        "twice",
        "taken out",
        "by its text",
    ],
)
def test_where_the_object_might_be_another_it_is_told_in_words(old: str, new: str) -> None:
    text = KIOSK.replace(old, new, 1)
    assert text != KIOSK
    assert "proved" not in statuses(text)


def test_a_method_that_is_bound_to_its_object_may_be_handed_on() -> None:
    text = KIOSK.replace("kiosk.tea();", "setTimeout(() => kiosk.tea(), 10);", 1)
    assert statuses(text) == {"proved"}
    text = KIOSK.replace("  log = [];", "  log = [];\n  later = this.tea.bind(this);", 1)
    assert statuses(text) == {"proved"}


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("this.NAME();", "kiosk.NAME();"),
        ("this.NAME();", "NAME();"),
        ("  NAME() {", "  static NAME() {"),
        ("    this.sold += 1;\n", "    this.sold += 2;\n"),
        ("    this.NAME();\n", "    setTimeout(() => this.NAME(), 0);\n"),
    ],
)
def test_a_faulty_method_is_refused(old: str, new: str) -> None:
    before, after = read(KIOSK, "javascript"), worked(KIOSK, "javascript")
    name = after.split("\n    this.sold += 1")[0].rsplit("() {", 1)[0].rsplit(" ", 1)[1]
    claim = NewFunction(before.path, name, (), "Kiosk")
    assert prove(before, rewritten(before, after), claim).proved
    faulty = after.replace(old.replace("NAME", name), new.replace("NAME", name), 1)
    assert faulty != after
    assert not prove(before, rewritten(before, faulty), claim).proved


PLAYER = """class Player {
    var lives = 3
    var score = 0

    func hitRock() {
        print("ouch")
        lives -= 1
        score -= 10
        print("lives \\(lives), score \\(score)")
        if lives == 0 {
            print("game over")
        }
    }

    func fallDown() {
        lives -= 1
        score -= 30
        print("lives \\(lives), score \\(score)")
        if lives == 0 {
            print("game over")
        }
        print("splash")
    }
}
"""


def test_bare_members_stay_with_their_object() -> None:
    found = report(PLAYER, language="swift").suggestions
    assert [s.status for s in found] == ["proved"]
    assert "+    private func " in found[0].diff
    assert "self." not in found[0].diff
    record = report(PLAYER.replace("class", "struct").replace("func", "mutating func"), language="swift").suggestions
    assert "+    private mutating func " in record[0].diff
    mixed = PLAYER.replace("func hitRock", "static func hitRock")
    assert "proved" not in statuses(mixed, "swift")


def test_a_member_that_is_worked_out_is_no_value_to_give() -> None:
    text = PLAYER.replace('print("ouch")', "").replace("score -= 10", "score -= first").replace("30", "second")
    text = text.replace(
        "    func hit", "    var first: Int { return lives }\n    var second: Int { return lives + 1 }\n    func hit"
    )
    text = text.replace('print("game over")', 'print("game over")\n            print("the end")')
    assert "lives -= 1\n        score -= second" in text
    # Only what does not need it is shared.
    (suggestion,) = report(text, language="swift").suggestions
    assert "+    private func printLives() {" in suggestion.diff
    assert "-        score" not in suggestion.diff


BUTTONS = """let count = 0;
const label = document.getElementById("label");

const plus = document.createElement("button");
plus.textContent = "one";
plus.addEventListener("click", () => {
  count = count + 1;
  label.textContent = count;
  plus.blur();
});
document.body.appendChild(plus);

label.textContent = "0";

const more = document.createElement("button");
more.textContent = "five";
more.addEventListener("click", () => {
  count = count + 5;
  label.textContent = count;
  more.blur();
});
document.body.appendChild(more);
"""


def test_handlers_go_into_the_function_that_makes_them() -> None:
    after = worked(BUTTONS, "javascript")
    assert after.count("addEventListener") == 1
    assert '("one", 1);\n' in after
    assert '("five", 5);\n' in after


@pytest.mark.parametrize(
    ("old", "new"),
    [
        ("count + 5;\n", "count + step;\n"),
        ("more.blur();\n});\n", "more.blur();\n});\nmore = null;\n"),
        ('"click", () =>', '"click", function ()'),
    ],
    ids=["a value that may change", "a variable that is given another", "an object of its own"],
)
def test_what_a_handler_keeps_must_stay(old: str, new: str) -> None:
    text = BUTTONS.replace(old, new)
    if "step" in new:
        text = text.replace("count + 1;", "count + other;").replace("let count", "let step = 5, other = 1;\nlet count")
        text += "step = 7;\nother = 2;\n"
    if "null" in new:
        text = text.replace("const plus", "let plus").replace("const more", "let more")
        text = text.replace("plus.blur();\n});\n", "plus.blur();\n});\nplus = null;\n")
        text += "console.log(plus, more);\n"
    if "function" in new:
        text = text.replace("plus.blur", "this.blur").replace("more.blur", "this.blur")
    assert text != BUTTONS
    assert "proved" not in statuses(text)


TURNS = """const later = [];
function go(list) {
  while (list.length) {
    WORD x = list.pop();
    console.log("one");
    later.push(() => {
      console.log("keep", x);
      console.log("red");
      console.log("end of it");
    });
    console.log("made", 1);
    console.log("two");
    later.push(() => {
      console.log("keep", x);
      console.log("blue");
      console.log("end of it");
    });
    console.log("made", 2);
  }
}
go([1, 2, 3]);
later.forEach((f) => f());
"""
COUNTS = """const later = [];
function go() {
  for (let k = 0; k < 2; k++) {
    WORD n = 0;
    later.push(() => {
      n = n + 1;
      console.log("red", n);
      console.log("end of it");
    });
    console.log("made", 1);
    console.log("two");
    WORD m = 0;
    later.push(() => {
      m = m + 1;
      console.log("red", m);
      console.log("end of it");
    });
    console.log("made", 1);
  }
}
go();
later.forEach((f) => f());
"""


@pytest.mark.parametrize("text", [TURNS, COUNTS], ids=["given", "its own"])
def test_a_variable_that_all_turns_share_is_not_kept_by_each(text: str) -> None:
    assert statuses(text.replace("WORD", "let")) == {"proved"}
    assert statuses(text.replace("WORD", "var")) == {"outline"}


PUMP = """#include <iostream>
using namespace std;

class Pump {
    int litres = 7;

public:
    void morning() KIND {
        cout << "good morning" << endl;
        cout << "now " << litres << endl;
        cout << "half of it is " << litres / 2 << endl;
        if (litres > 3) {
            cout << "plenty" << endl;
        }
    }

    int noon() KIND {
        cout << "now " << litres << endl;
        cout << "half of it is " << litres / 2 << endl;
        if (litres > 3) {
            cout << "plenty" << endl;
        }
        return 3;
    }
};

int main() {
    Pump pump;
    pump.morning();
    cout << pump.noon() << endl;
}
"""


@pytest.mark.parametrize(
    ("kind", "head"), [("", "    void printLitres() {\n"), ("const", "    void printLitres() const {\n")]
)
def test_a_method_of_a_class_is_of_the_kind_of_its_callers(kind: str, head: str) -> None:
    (found,) = report(PUMP.replace(" KIND", f" {kind}".rstrip()), language="cpp").suggestions
    assert found.status == "proved"
    assert f"+{head}" in found.diff
    mixed = PUMP.replace("morning() KIND", "morning() const").replace(" KIND", "")
    assert "proved" not in statuses(mixed, "cpp")


def test_a_call_through_the_class_is_a_call() -> None:
    text = "class Pump {\npublic:\n    static void start() {\n    }\n};\nint main() {\n    Pump::start();\n}\n"
    assert rules(text, language="cpp") == []
    assert rules(text.replace("    Pump::start();\n", ""), language="cpp") == ["uncalled-function"]


@pytest.mark.parametrize("language", [x for x in ("javascript", "typescript", "cpp") if can_run(x)])
def test_wild_classes_print_the_same(language: str, tmp_path: Path) -> None:
    groups: list[Group] = []
    methods = 0
    for seed in range(40 if language == "cpp" else 60):
        text = wild_class(seed, language)
        proved, texts = proved_in(text, language)
        methods += sum(r.candidate.title.startswith("A method") for r in proved)
        groups.append((text, texts))
    assert methods > 10
    require_same(groups, lambda texts: outputs(language, texts, tmp_path))


def test_a_class_with_a_broken_head_is_read_over() -> None:
    broken = (
        PUMP.replace("    int noon() KIND {", "    int noon() <<{")
        .replace(" KIND", "")
        .replace("        cout <<", "  <<", 2)
    )
    found = report(broken, language="cpp")
    assert found.files[0].problems


def test_wild_handlers_print_the_same(tmp_path: Path) -> None:
    groups = [(text, proved_in(text, "javascript")[1]) for text in map(wild_handlers, range(200))]
    assert sum(len(texts) for _, texts in groups) > 30
    if can_run("javascript"):
        require_same(groups, lambda texts: outputs("javascript", texts, tmp_path), "ERROR")
