"""Copies that leave what they stand in: their function tells the caller when to; and what the proof refuses."""

from __future__ import annotations

from random import Random

import pytest

from core.builders import file, read, report, run, verdict, worked
from core.faults import with_faults
from core.runners import require_same_output
from core.sweeps import proved_in
from core.wild_leaving import leaving
from partitor.program.flow import flow_of
from partitor.suggestions.edits import rewritten
from partitor.suggestions.proof import Leaving, LeavingFunction, prove

TYPED = "1\nnets\n2\n2\noars\n1\nnets\nmany\n4\nnets\n7.5\n1\nnets\n99\n5\n"
SHOP = """
def main():
    stock = {"nets": 4, "ropes": 7}
    prices = {"nets": 20.0, "ropes": 8.0}
    cash = 100.0
    while True:
        choice = input("> ")
        if choice == "1":
            item = input("Which item? ")
            if item not in stock:
                print("We have no", item)
                continue
            try:
                amount = int(input("How many? "))
            except ValueError:
                print("That is no number")
                continue
            if amount > stock[item]:
                print("Only", stock[item], "left")
                continue
            stock[item] -= amount
            cash += amount * prices[item]
            print("Cash is now", cash)
        elif choice == "2":
            item = input("Which item? ")
            if item not in stock:
                print("We have no", item)
                continue
            try:
                amount = int(input("How many? "))
            except ValueError:
                print("That is no number")
                continue
            stock[item] += amount
            cash -= amount * prices[item] * 0.6
            print("Cash is now", cash)
        elif choice == "4":
            item = input("Which item? ")
            if item not in stock:
                print("We have no", item)
                continue
            try:
                price = float(input("New price? "))
            except ValueError:
                print("That is no number")
                continue
            prices[item] = price
        else:
            break


main()
"""


def test_a_call_and_a_test_stand_for_what_is_asked_and_refused() -> None:
    after = worked(SHOP)
    assert (
        'item, amount = read_item(stock, int, "How many? ")\n            if item is None:\n                continue'
        in after
    )
    assert "    return item, amount\n" in after
    assert run(after, TYPED) == run(SHOP, TYPED)


TWO_CHECKS = """
names = []
sizes = []


def add_boat(name, size):
    if name == "":
        print("a boat needs a name")
        return
    if size < 2:
        print("that is no boat")
        return
    if size > 60:
        print("that is a ship")
        return
    names.append(name)
    sizes.append(size)
    print("added", name)


def rename_boat(old, name, size):
    if name == "":
        print("a boat needs a name")
        return
    if size < 2:
        print("that is no boat")
        return
    if size > 60:
        print("that is a ship")
        return
    names[names.index(old)] = name


def swap_boats(name, size):
    if name == "":
        print("a boat needs a name")
        return
    if size < 2:
        print("that is no boat")
        return
    if size > 60:
        print("that is a ship")
        return
    names.append(names.pop(0))


add_boat("Tern", 7)
add_boat("", 7)
rename_boat("Tern", "Gull", 61)
rename_boat("Tern", "Gull", 9)
swap_boats("Gull", 1)
print(names, sizes)
"""


def test_what_only_checks_says_whether_to_go_on() -> None:
    after = worked(TWO_CHECKS)
    assert after.count("(name, size):\n        return\n") == 3
    assert "        return False\n" in after
    assert "    return True\n" in after
    assert run(after) == run(TWO_CHECKS)


def test_what_returns_in_any_case_is_given_back() -> None:
    after = worked(RETURNS)
    assert after.count("        return ") == 5
    assert run(after) == run(RETURNS)


RETURNS = """
def answer(me, you):
    if you == "rock":
        if me == "rock":
            print("rock as well, draw")
            return 0
        elif me == "paper":
            print("paper, I win")
            return -1
        else:
            print("You win with rock")
            return 1
    elif you == "paper":
        if me == "paper":
            print("paper as well, draw")
            return 0
        elif me == "scissors":
            print("scissors, I win")
            return -1
        else:
            print("You win with paper")
            return 1
    return None


for one in ("rock", "paper", "scissors"):
    for other in ("rock", "paper", "fish"):
        print(answer(one, other))
"""


JAVASCRIPT = """
const stock = { nets: 4, ropes: 2 };
let log = [];

function main() {
  let cash = 100;
  const orders = [["sell", "nets", 2], ["buy", "ropes", 3], ["sell", "oars", 1], ["price", "nets", 9], ["buy", "nets", 40]];
  for (const order of orders) {
    const what = order[0];
    const item = order[1];
    const count = order[2];
    if (what === "sell") {
      if (!(item in stock)) {
        console.log("no " + item);
        continue;
      }
      if (count > stock[item]) {
        console.log("only " + stock[item]);
        continue;
      }
      stock[item] -= count;
      cash += count * 20;
      log.push("sold " + item);
      console.log("cash " + cash);
    } else if (what === "buy") {
      const cost = count * 12;
      if (cost > cash) {
        console.log("too dear: " + cost);
        continue;
      }
      if (!(item in stock)) {
        stock[item] = 0;
      }
      stock[item] += count;
      cash -= cost;
      log.push("bought " + item);
      console.log("cash is " + cash);
    } else if (what === "price") {
      if (count < 1) {
        console.log("not a price");
        continue;
      }
      log.push("price of " + item);
      console.log(item + " now costs " + count);
      console.log("----");
      console.log(log.length);
    }
  }
  console.log(cash, log.join(","));
}

main();
"""
IN_C = r"""
#include <stdio.h>

int main(void) {
    int level = 10;
    int gate = 0;
    for (int hour = 0; hour < 12; hour++) {
        printf("hour %d\n", hour);
        if (hour % 3 == 0) {
            if (level > 14) {
                printf("too high\n");
                continue;
            }
            level = level + 3;
            gate = 1;
            printf("level %d\n", level);
            printf("gate %d\n", gate);
            if (hour == 6) {
                printf("half\n");
            }
        } else if (hour % 3 == 1) {
            if (gate == 0) {
                printf("closed\n");
                continue;
            }
            printf("open\n");
            switch (hour) {
            case 4:
                printf("four\n");
                break;
            default:
                printf("other\n");
            }
            level = level - 1;
            printf("falls to %d\n", level);
        } else {
            printf("nothing\n");
            printf("level still %d\n", level);
            level = level + hour % 2;
            printf("after %d\n", level);
            printf("done\n");
        }
    }
    printf("%d\n", level);
    return 0;
}
"""


def test_branches_that_leave_a_turn_are_steps(tmp_path) -> None:
    for language, text in (("javascript", JAVASCRIPT), ("c", IN_C)):
        after = worked(text, language)
        assert "return cash;" in after if language == "javascript" else "return level;" in after
        require_same_output(language, text, after, tmp_path)


def test_what_would_save_no_line_is_told_in_words() -> None:
    text = """
    def first(names):
        for name in names:
            if name == "":
                print("a name please")
                print("and a longer one")
                continue
            print("hello", name)

    def second(names):
        for name in names:
            if name == "":
                print("a name please")
                print("and a longer one")
                continue
            print(name, "goes")
            print(name.upper())
    """
    assert all(s.status == "outline" for s in report(text).suggestions if s.kind == "function")


LOOP = """
def main(lines):
    count = 0
    for line, other in lines:
        if line == "":
            print("nothing")
            continue
        size = int(line)
        print("size", size)
        if other == "":
            print("nothing")
            continue
        depth = int(other)
        print("depth", depth)
        count += size * depth
    return count


print(main([("3", "4"), ("", "5"), ("6", "")]))
"""
RIGHT = """
def read_text(text):
    if text == "":
        print("nothing")
        return None
    size = int(text)
    return size


def main(lines):
    count = 0
    for line, other in lines:
        size = read_text(line)
        if size is None:
            continue
        print("size", size)
        depth = read_text(other)
        if depth is None:
            continue
        print("depth", depth)
        count += size * depth
    return count


print(main([("3", "4"), ("", "5"), ("6", "")]))
"""
AT_TIMES = LeavingFunction("main.py", "read_text", Leaving.AT_TIMES)


def test_the_right_rewriting_is_proved() -> None:
    assert verdict(LOOP, RIGHT, AT_TIMES).proved


@pytest.mark.parametrize(
    ("was", "now"),
    [
        ("        if size is None:\n            continue\n", ""),
        ("if depth is None:\n            continue", "if depth is None:\n            break"),
        ("if depth is None:\n            continue", "if size is None:\n            continue"),
        ("if depth is None:\n            continue", "if depth is not None:\n            continue"),
        (
            "if depth is None:\n            continue",
            "if depth is None:\n            print('gone')\n            continue",
        ),
        ("if depth is None:", "if depth is None or count:"),
        ("        return None\n", "        return 0\n"),
        ("        return None\n", ""),
        ("    size = int(text)\n    return size", "    size = find(text)\n    return size"),
        ("    size = int(text)\n    return size", "    size = None\n    return size"),
        ("        depth = read_text(other)\n", "        depth = read_text(other)\n        count += 0\n"),
    ],
)
def test_a_wrong_rewriting_is_refused(was: str, now: str) -> None:
    wrong = RIGHT.replace(was, now)
    assert wrong != RIGHT
    assert not verdict(LOOP, wrong, AT_TIMES).proved


@pytest.mark.parametrize(
    "slip",
    [
        ("    return count\n", "    return count, depth\n"),
        ("    return count\n", "    return count, size\n"),
        ("    count = 0\n", "    count = 0\n    see = lambda: size\n"),
        ("def main", "def int(text):\n    return None\n\n\ndef main"),
        ("print(main", "from tools import *\nprint(main"),
    ],
)
def test_no_function_gives_nothing_where_that_could_be_seen(slip: tuple[str, str]) -> None:
    before, after = LOOP.replace(*slip), RIGHT.replace(*slip)
    assert not verdict(before, after, AT_TIMES).proved


@pytest.mark.parametrize("start", range(0, 120, 40))
def test_wild_programs_print_the_same_and_faults_are_refused(start: int) -> None:
    proved = seeded = 0
    for seed in range(start, start + 40):
        text = leaving(seed)
        if file(text).tree.problems:
            continue
        was = run(text)
        found, texts = proved_in(text, "python")
        for after in texts:
            now = run(after)
            assert now == was or (was[0] and now[0] and was[1] == now[1]), f"{text}\n----- became\n{after}"
        for suggestion in found:
            claim = suggestion.candidate.claim
            if not isinstance(claim, LeavingFunction):
                continue
            proved += 1
            for kind, wrong in with_faults(text, suggestion.after.source.text, Random(seed)):
                seeded += 1
                if prove(suggestion.candidate.file, read(wrong, "python"), claim).proved:
                    assert run(wrong) == was, f"{kind}\n{wrong}"
    assert proved > 4
    assert seeded > 10


def test_what_is_live_where_a_jump_goes_is_known() -> None:
    program = file(LOOP)
    main = program.procedures[1]
    jumps = flow_of(program, main.node).live_at_jump
    assert [sorted(jumps[n] & {"count", "size", "depth"}) for n in sorted(jumps)] == [["count"], ["count"], []]


BEHIND_A_LOOP = """
def main(levels):
    for day in range(3):
        for level in levels:
            if level > day + 7:
                break
        else:
            print("day", day)
            if day == 1:
                print("a rest")
                continue
            print("all low")
            print("open", day)
        print("evening")


main([3, 8])
"""
NEXT_CASE = """
#include <stdio.h>
int main(void) {
    for (int day = 0; day < 4; day++) {
        switch (day % 2) {
        case 0:
            printf("day %d\\n", day);
            if (day == 2) {
                printf("a rest\\n");
                continue;
            }
            printf("all low\\n");
            printf("open\\n");
        default:
            printf("evening\\n");
        }
    }
    return 0;
}
"""
SMALL = 'format = "partitor-assignment"\nversion = 1\n[limits]\nprocedure_statements = 4\n'


def rewritten_by_hand(text: str, first: str, last: str, head: str, call: str, jump: str) -> str:
    """The lines from `first` to `last` in a function of their own, above all others, that returns where they leave."""
    lines = text.split("\n")
    a = next(k for k, line in enumerate(lines) if first in line)
    b = next(k for k, line in enumerate(lines) if last in line)
    indent = lines[a][: len(lines[a]) - len(lines[a].lstrip())]
    body = ["    " + line[len(indent) :].replace(jump, jump.replace("continue", "return")) for line in lines[a : b + 1]]
    closed = [*body, "}"] if jump.endswith(";") else body
    at = 2 if jump.endswith(";") else 0
    return "\n".join([*lines[:at], head, *closed, *lines[at:a], indent + call, *lines[b + 1 :]])


def test_what_follows_on_a_branch_is_not_left_out() -> None:
    claim = LeavingFunction("main.py", "tell", Leaving.AT_ITS_END)
    after = rewritten_by_hand(BEHIND_A_LOOP, '"day"', '"open"', "def tell(day):", "tell(day)", "continue")
    assert run(after) != run(BEHIND_A_LOOP)
    assert not verdict(BEHIND_A_LOOP, after, claim).proved
    assert run(report(BEHIND_A_LOOP, SMALL).worked_answer.files.get("main.py", BEHIND_A_LOOP)) == run(BEHIND_A_LOOP)


def test_a_branch_that_runs_on_is_not_left_out(tmp_path) -> None:
    claim = LeavingFunction("main.c", "tell", Leaving.AT_ITS_END)
    after = rewritten_by_hand(NEXT_CASE, "day %d", "open", "void tell(int day) {", "tell(day);", "continue;")
    before = read(NEXT_CASE, "c")
    assert not prove(before, rewritten(before, after), claim).proved
    answer = report(NEXT_CASE, SMALL, "c").worked_answer.files.get("main.c", NEXT_CASE)
    require_same_output("c", NEXT_CASE, answer, tmp_path)


BRANCHES = """
def act(command, log):
    match command:
        case "open":
            log.append("opened")
            print("gate", command)
            log.sort()
            return len(log)
        case "shut":
            log.append("closed")
            print("gate", command)
            log.sort()
            return len(log)
        case _:
            print("unknown")


print(act("open", []), act("shut", ["z"]), act("lift", []))
"""


def test_branches_that_give_something_back_share_a_function_that_gives_it() -> None:
    (found,) = report(BRANCHES).suggestions
    assert found.status == "proved"
    assert '+            return print_log(log, "opened", command)' in found.diff
    as_tests = BRANCHES.replace("    match command:\n", "").replace('        case "open":', '    if command == "open":')
    as_tests = as_tests.replace('        case "shut":', '    elif command == "shut":').replace(
        "        case _:", "    else:"
    )
    assert [s.status for s in report(as_tests).suggestions] == ["proved"]
    # Two lines are too little for a function.
    short = BRANCHES.replace("            log.sort()\n", "").replace('            print("gate", command)\n', "")
    assert report(short).findings == ()
