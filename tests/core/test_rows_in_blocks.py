"""Runs inside repeated blocks: a block holds a run whole, and begins where the student began a paragraph."""

from builders import printed, repeats, worked

PEN = """class Pen:
    def go(self, *place): print("go", place)
    def color(self, name): print("color", name)
    def forward(self, length): print("forward", length)
    def left(self, angle): print("left", angle)
    def fill(self): print("fill")


pen = Pen()
"""


def part(x: int, color: str, *sides: int) -> str:
    sides_drawn = "".join(f"pen.forward({side})\npen.left(90)\n" for side in sides)
    return f'pen.go({x}, {x * 3})\npen.color("{color}")\n{sides_drawn}pen.fill()\n'


def test_a_block_takes_a_run_whole_and_begins_with_a_paragraph() -> None:
    text = PEN + "pen.fill()\n\n" + part(40, "brown", 20, 40, 20, 40) + "\n" + part(10, "blue", 25, 25, 25, 25)
    (block,) = repeats(text).blocks
    assert [len(c.statements) for c in block.table.copies] == [11, 11]
    assert block.table.copies[0].file.lines[block.table.copies[0].start_line - 1] == "pen.go(40, 120)"
    after = worked(text)
    assert printed(after) == printed(text)
    # As loops the two are not alike; as one function with two lengths they are.
    assert after.count("pen.fill()") == 2
    assert after.count("pen.color(") == 1


def test_alike_runs_become_loops_before_the_block_becomes_a_function() -> None:
    text = PEN + part(40, "brown", 20, 20, 20, 20) + "print('next')\n" + part(10, "blue", 25, 25, 25, 25)
    after = worked(text)
    assert printed(after) == printed(text)
    assert after.count("range(4)") == 1
    assert after.count("pen.forward(") == 1


def test_half_a_run_is_no_part_of_a_block() -> None:
    """The runs have three and four copies: only what stands around them is shared."""
    text = PEN + part(40, "brown", 20, 30, 50) + "print('next')\n" + part(10, "blue", 25, 35, 20, 60)
    found = repeats(text)
    assert len(found.runs) == 2
    inside = {s for r in found.runs for c in r.table.copies for s in c.statements}
    assert not any(s in inside for b in found.blocks for c in b.table.copies for s in c.statements)


def test_the_same_run_in_two_places_is_no_block_besides() -> None:
    row = "".join(f"print('gate', {n})\nrest({n})\n" for n in (3, 4, 5))
    found = repeats(f"def rest(n):\n    print(n * 2)\n\n\n{row}print('half')\nrest(0)\n{row}")
    assert len(found.runs) >= 1
    assert not found.blocks


MONTHS = ("January", "February", "March", "April")
WARMEST = """    {0} = {1}
    {2} = "January"
{tests}    print("{3}:", {2}, {0})
"""


def test_a_block_that_is_worth_more_than_its_loops_comes_first() -> None:
    def part(best: str, where: str, label: str, names: list[str]) -> str:
        tests = "".join(
            f"    if {n} > {best}:\n        {best} = {n}\n        {where} = {m!r}\n"
            for n, m in zip(names[1:], MONTHS[1:], strict=True)
        )
        return WARMEST.format(best, names[0], where, label, tests=tests)

    given = "".join(
        f"    {n} = {k * 7 % 5}\n" for k, n in enumerate(["jan", "feb", "mar", "apr", "rj", "rf", "rm", "ra"])
    )
    text = f"def main():\n{given}" + part("highest", "month", "Warmest", ["jan", "feb", "mar", "apr"])
    text += part("wettest", "wet_month", "Wettest", ["rj", "rf", "rm", "ra"]) + "\n\nmain()\n"
    after = worked(text)
    assert printed(after) == printed(text)
    assert after.count("print(") == 1
    assert after.count("for ") == 1


def test_what_the_copies_call_a_variable_is_no_name_for_a_value() -> None:
    """`highest = jan`: the value given is not called `highest`, as the variable is."""
    form = "{0} = {1}\nif {2} > {0}:\n    {0} = {2}\nprint('most', {0}, {0} * 2)\n"
    form += "print('half', {0} / 2)\nprint('more', {0} + 1)\n"
    text = (
        "a, b, c, d = 3, 5, 8, 2\n" + form.format("highest", "a", "b") + "print()\n" + form.format("wettest", "c", "d")
    )
    after = worked(text)
    assert printed(after) == printed(text)
    assert after.count("print('most'") == 1
