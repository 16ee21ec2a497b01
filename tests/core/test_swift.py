"""Swift: its tree, what is found and written in it, and what the proof refuses because of its types and values."""

from __future__ import annotations

from core.builders import prove, read, report, rules, worked
from partitor.suggestions.proof import NewFunction, NewLoop

GREETING = """
struct Boat {
    var seats = 4
    var fee: Double { return Double(seats) * 2.5 }

    mutating func board(people: Int) {
        seats -= people
    }
}

func show(_ name: String, at row: Int = 3) -> Int {
    if row > 3 && name != "" {
        print("row \\(row)")
    } else if row < 0 {
        return 0
    } else {
        print("no row")
    }
    switch row {
    case 1, 2:
        print("front")
    default:
        break
    }
    return row * 2
}

guard let first = Int("3") else { fatalError() }
var boat = Boat(seats: first)
boat.board(people: show("Ada", at: 2))
button.onTap { print("tap"); boat.seats = 1 }
for (k, v) in zip([1, 2], ["a", "b"]) where k > 1 { print(k, v) }
"""


def proved(before: str, after: str, claim: NewLoop | NewFunction) -> str:
    """The reason of a refusal; "" where the rewriting is proved."""
    return prove(read(before, "swift"), read(after, "swift"), claim).reason


def test_a_program_becomes_the_common_tree() -> None:
    file = read(GREETING, "swift")
    tree = file.tree
    assert not tree.problems
    named = [(p.name, p.parameters, p.in_class) for p in file.procedures[1:]]
    assert named[:3] == [("fee", (), True), ("board", ("people",), True), ("show", ("name", "row"), False)]
    kinds = set(tree.kind)
    assert {"if_statement", "elif_clause", "else_clause", "match_statement", "case_clause", "guard_statement"} <= kinds
    test = next(n for n, kind in enumerate(tree.kind) if kind == "binary_operator" and tree.field[n] == "condition")
    assert tree.text[tree.child(test, "operator") or 0] == "&&", "&& binds looser than > and !="


def test_a_run_becomes_a_loop_over_a_range_or_a_list() -> None:
    text = "".join(f'print("gate {n} opens")\nprint("water")\n' for n in (1, 2, 3))
    assert 'for gate in 1...3 {\n    print("gate \\(gate) opens")' in worked(text, "swift")
    text = "".join(f'print("gate {n} opens")\nprint("water")\n' for n in (9, 6, 3))
    assert "in stride(from: 9, through: 3, by: -3) {" in worked(text, "swift")
    rows = (("ash", 4), ("elm", 9), ("oak", 1))
    call = "func plant(_ tree: String) {\n    print(tree)\n}\n\n"
    text = call + "".join(f'plant("{w}")\nprint("row {n}")\nprint("and water it")\n' for w, n in rows)
    assert 'in [("ash", 4), ("elm", 9), ("oak", 1)] {' in worked(text, "swift")


TWINS = """
func line({label}width: Int) {{
    print(width)
}}

func showRye() {{
    print("Label")
    print("sow in spring")
    line({give}20)
    print("done")
}}

func showOat() {{
    print("Label")
    print("sow in spring")
    line({give}24)
    print("done")
}}

showRye()
showOat()
"""


def test_new_functions_label_their_values_as_the_student_does() -> None:
    bare = worked(TWINS.format(label="_ ", give=""), "swift")
    assert "(_ width: Int) {" in bare
    assert bare.rstrip().endswith("(24)")
    labelled = worked(TWINS.format(label="", give="width: "), "swift")
    assert "(width: Int) {" in labelled
    assert labelled.rstrip().endswith("(width: 24)")


def test_a_literal_that_may_take_on_another_type_is_no_parameter() -> None:
    text = "".join(f"shape.move(x: {n}, y: 5)\nshape.turn()\nshape.stamp()\n" for n in (10, 20, 30))
    found = report(text, language="swift")
    assert [f.rule for f in found.findings] == ["repeated-run"]
    assert [s.status for s in found.suggestions] == ["outline"]
    assert "another type" in found.suggestions[0].why_not


def test_what_names_members_becomes_a_method_of_their_object() -> None:
    body = 'print("Boarding")\n        seats -= 1\n        print("Seats left: \\(seats)")\n        print("Next please")'
    text = f"""
    struct Boat {{
        var seats = 4
        mutating func morning() {{
            {body.replace("        ", "            ")}
            print("Good morning")
        }}
        mutating func noon() {{
            print("Good day")
            {body.replace("        ", "            ")}
        }}
    }}
    var boat = Boat()
    boat.morning()
    boat.noon()
    """
    found = report(text, language="swift")
    assert [f.rule for f in found.findings] == ["repeated-block"]
    assert [s.status for s in found.suggestions] == ["proved"]


PLAIN = 'print("gate 1")\nprint("gate 2")\nprint("gate 3")\n'


def test_loops_that_mean_something_else_are_refused() -> None:
    def loop(head: str) -> str:
        return proved(PLAIN, f'{head} {{\n    print("gate \\(i)")\n}}\n', NewLoop("main.swift", 1))

    assert loop("for i in 1...3") == ""
    assert loop("for i in stride(from: 1, to: 4, by: 1)") == ""
    assert loop("for i in 1..<3") != ""
    assert loop("for i in 1...3 where i > 0") != ""
    assert loop("for i in stride(from: 1, through: 3, by: 2)") != ""
    own = "func stride(from: Int, to: Int, by: Int) -> [Int] { return [] }\n"
    after = own + 'for i in stride(from: 1, to: 4, by: 1) {\n    print("gate \\(i)")\n}\n'
    assert "meaning of its own" in proved(own + PLAIN, after, NewLoop("main.swift", 2))


def test_a_list_whose_literals_would_become_one_type_is_refused() -> None:
    before = "print(1)\nprint(2.5)\nprint(3)\n"
    after = "for n in [1, 2.5, 3] {\n    print(n)\n}\n"
    assert "different types" in proved(before, after, NewLoop("main.swift", 1))


CALLS = 'print("a")\nprint(1)\nprint("b")\nprint("a")\nprint(2)\nprint("b")\n'


def test_labels_must_be_those_of_the_function() -> None:
    def function(parameter: str, give: str) -> str:
        head = f'func show({parameter}: Int) {{\n    print("a")\n    print(n)\n    print("b")\n}}\n'
        calls = f"show({give}1)\nshow({give}2)\n"
        return proved(CALLS, head + calls, NewFunction("main.swift", "show"))

    assert function("_ n", "") == ""
    assert function("n", "n: ") == ""
    assert function("at n", "at: ") == ""
    assert "labels" in function("n", "")
    assert "labels" in function("_ n", "n: ")


def test_a_function_cannot_change_what_it_is_given() -> None:
    before = "func f() {\n    var n = 1\n    n += 1\n    print(n)\n    n += 1\n    print(n)\n}\nf()\n"
    after = (
        "func step(_ n: Int) -> Int {\n    n += 1\n    print(n)\n    return n\n}\n"
        "func f() {\n    var n = 1\n    n = step(n)\n    n = step(n)\n}\nf()\n"
    )
    assert "changes a value" in proved(before, after, NewFunction("main.swift", "step"))


def test_a_part_of_a_record_or_a_list_that_changes_changes_its_variable() -> None:
    text = """
    func f() {
        var log = [1]
        log.append(2)
        print(log)
    }
    f()
    """
    file = read(text, "swift")
    roles = [file.names.role[i].name for i in file.names.nodes if file.tree.text[i] == "log"]
    assert roles == ["WRITE", "UPDATE", "READ"]


def test_well_made_programs_get_no_remark() -> None:
    text = """
    struct Tide {
        let name: String
        let metres: Double
    }

    let tides = [Tide(name: "spring", metres: 5.2), Tide(name: "neap", metres: 3.1)]

    // Prints one tide.
    func show(_ tide: Tide) {
        print("\\(tide.name): \\(tide.metres) m")
    }

    for tide in tides {
        show(tide)
    }
    """
    assert rules(text, language="swift") == []


def test_what_follows_an_operand_closely_belongs_to_it_alone() -> None:
    tree = read("let mean = 2 + sums[1].low * -values.count\nlet sunny = !days.isEmpty && open\n", "swift").tree
    told = {tree.source_of(n): tree.kind[n] for n in range(1, len(tree.kind))}
    assert told["sums[1].low * -values.count"] == "binary_operator"
    assert told["-values.count"] == "unary_operator"
    assert told["values.count"] == "attribute"
    assert told["!days.isEmpty"] == "unary_operator"
    assert "2 + sums" not in told
    assert "-values" not in told
    assert "!days" not in told


MEANS = """
func tide(_ values: [Int]) {
    var sum = 0
    for v in values {
        sum += v
    }
    let mean = sum / values.count
    print("mean: \\(mean)")
}

func wind(_ speeds: [Int], _ note: String) {
    print(note)
    var sum = 0
    for v in speeds {
        sum += v
    }
    let mean = sum / speeds.count
    print("mean: \\(mean)")
}

tide([3, 4])
wind([5, 6], "north")
"""


def test_a_list_that_is_only_looked_at_is_handed_on() -> None:
    found = report(MEANS, language="swift").suggestions
    assert [(s.kind, s.status) for s in found] == [("function", "proved")]
    block = 'var {0} = 0\nfor v in {1} {{\n    {0} += v\n}}\n{1}.append({0})\nprint("sum", {0}, {1}.count)\n'
    changing = (
        "var tides = [3, 4]\nvar winds = [5]\n" + block.format("a", "tides") + "f()\n" + block.format("b", "winds")
    )
    found = report(changing, language="swift").suggestions
    assert [(s.kind, s.status) for s in found] == [("function", "outline")]


def labels(kind: str, declared: str = "let") -> str:
    """Three labels of one kind, set up in the same way."""
    told = "".join(f"let n{k} = 0\n{declared} {n} = {kind}()\n" for k, n in enumerate(("first", "second", "third")))
    lines = "".join(
        f'{n}.textColor = .white\n{n}.text = "{w}"\nstack.add({n})\n'
        for n, w in (("first", "Morning"), ("second", "Noon"), ("third", "Night"))
    )
    return f"import UIKit\n{told}{lines}"


def test_things_of_a_class_are_run_through() -> None:
    after = worked(labels("UILabel"), "swift")
    assert 'for (label, name) in [(first, "Morning"), (second, "Noon"), (third, "Night")] {\n' in after
    own = "class Lamp {\n    var textColor = 0\n    var text = 1\n}\n"
    text = own + labels("Lamp").replace(".white", "3")
    for name, word in (("first", "Morning"), ("second", "Noon"), ("third", "Night")):
        text = text.replace(f'{name}.text = "{word}"', f"{name}.text = 1\nprint({name}.text)")
    assert "in [first, second, third] {" in worked(text, "swift")
    record = text.replace("class Lamp", "struct Lamp").replace("let first", "var first")
    assert "for (" not in worked(record, "swift")


def test_a_class_of_the_system_is_no_slip() -> None:
    text = "import UIKit\nlet a = UIButton()\nlet b = UILable()\nfunc UILabel2() {}\nUILabel2()\n"
    assert "UIButton" not in str([f.message for f in report(text, language="swift").findings])


def test_a_list_that_is_added_to_is_not_run_through() -> None:
    head = "var first = [1]\nvar second = [2]\nvar third = [3]\n"
    lines = '{0}.{1}(4)\nprint("so far")\nprint({0}.count)\n'
    after = (
        head
        + 'for list in [first, second, third] {{\n    list.{0}(4)\n    print("so far")\n    print(list.count)\n}}\n'
    )
    for call, known in (("append", False), ("contains", True)):
        before = read(head + "".join(lines.format(n, call) for n in ("first", "second", "third")), "swift")
        assert prove(before, read(after.format(call), "swift"), NewLoop(before.path, 4)).proved is known


def test_what_may_fail_to_be_made_is_of_no_known_class() -> None:
    own = "class Lamp {\n    var textColor = 0\n    init?() { return nil }\n}\n"
    text = own + labels("Lamp").replace(".white", "3").replace(".text = ", ".textColor = ").replace('"Morning"', "3")
    text = text.replace('"Noon"', "3").replace('"Night"', "3")
    assert "for (" not in worked(text, "swift")
    assert " in [first, second, third]" not in worked(text, "swift")
