"""What is found: runs, blocks, twins, and what differs between their copies."""

from builders import repeats, report

from partitor.repeats.limits import Limits
from partitor.repeats.slots import Table


def lines(table: Table) -> list[tuple[int, int]]:
    return [(c.start_line, c.end_line) for c in table.copies]


def values(table: Table) -> list[tuple[str, ...]]:
    return [c.values for c in table.columns]


def test_a_run_of_two_statements_is_found_with_its_values():
    (run,) = repeats(
        """
        open_gate(1)
        print("gate", 310)
        open_gate(2)
        print("gate", 270)
        open_gate(3)
        print("gate", 230)
        """
    ).runs
    assert lines(run.table) == [(1, 2), (3, 4), (5, 6)]
    assert values(run.table) == [("1", "2", "3"), ("310", "270", "230")]
    assert [c.step() for c in run.table.columns] == [1, -40]


def test_numbers_inside_strings_are_columns_of_their_own():
    (run,) = repeats(
        """
        print("gate 1 of 4")
        log("gate1.txt")
        print("gate 2 of 4")
        log("gate2.txt")
        print("gate 3 of 4")
        log("gate3.txt")
        """
    ).runs
    assert values(run.table) == [("1", "2", "3")]
    assert len(run.table.columns[0].spots) == 2


def test_a_run_inside_a_run_is_one_opportunity_each():
    inner = "".join(f"hour = {h}\nprint(hour, gate)\n" for h in (6, 12, 18))
    text = "".join(f"gate = {g}\nprint('gate', gate, 'today')\n{inner}" for g in (1, 2, 3))
    found = repeats(text).runs
    assert [len(r.table.copies) for r in found] == [3, 3]
    assert [len(r.table.copies[0].statements) for r in found] == [8, 2]


def test_a_copy_that_is_not_whole_at_the_end_is_told_apart():
    text = "a()\nb()\nc()\n" * 3 + "a()\nb()\nlast()\n"
    (run,) = repeats(text).runs
    assert len(run.table.copies) == 3
    assert run.rest is not None
    assert (run.rest.start_line, run.rest.end_line) == (10, 11)


def test_copies_begin_where_paragraphs_begin():
    text = "print('-')\n\n" + "".join(f"read({n})\nprint({n})\nprint('-')\n\n" for n in (4, 9, 2))
    (run,) = repeats(text).runs
    assert [s for s, _ in lines(run.table)] == [3, 7, 11]


def test_a_block_in_separate_places_leaves_its_unlike_heading_out():
    (block,) = repeats(
        """
        print("Morning")
        low = min(morning)
        high = max(morning)
        print("from", low, "to", high)
        print("mean", (low + high) / 2)
        ring_bell()
        print("Evening")
        low = min(evening)
        high = max(evening)
        print("from", low, "to", high)
        print("mean", (low + high) / 2)
        """
    ).blocks
    assert lines(block.table) == [(2, 5), (8, 11)]
    assert values(block.table) == [("morning", "evening")]


def test_blocks_are_found_across_functions_and_branches():
    text = """
        def first(levels):
            total = 0
            for level in levels:
                total = total + level
            print("mean", total / len(levels))
            print("first done")

        def second(levels, quiet):
            if not quiet:
                total = 0
                for level in levels:
                    total = total + level
                print("mean", total / len(levels))
        """
    (block,) = repeats(text).blocks
    assert lines(block.table) == [(2, 5), (10, 13)]


def test_twins_are_one_opportunity_not_a_block_too():
    found = repeats(
        """
        def north():
            level = 310
            print("North gate", level)
            return level

        def south():
            level = 270
            print("South gate", level)
            return level
        """
    )
    (twins,) = found.twins
    assert [p.name for _, p in twins.procedures] == ["north", "south"]
    assert values(twins.table) == [("310", "270"), ('"North"', '"South"')]
    assert found.blocks == ()


def test_limits_are_the_assignments():
    text = "open_gate(1)\nshut_gate(1)\n" * 3
    assert repeats(text, Limits(run_copies=4)).runs == ()
    assert len(repeats(text, Limits(run_copies=3)).runs) == 1


def test_handed_out_lines_are_never_part_of_a_copy():
    from builders import source

    from partitor.check import program_of
    from partitor.repeats.find import find_repeats

    text = "open_gate(1)\nshut_gate(1)\n" * 3
    everything = frozenset(("main.py", n) for n in range(1, 7))
    assert find_repeats(program_of([source(text)]), Limits(), everything).runs == ()


# -- interruptions -----------------------------------------------------------------------------------

GATES = "".join(f'print("Gate {n}")\nlevel = {350 - 40 * n}\nprint("  opens at", level - 10)\n' for n in range(1, 6))


def test_copies_that_go_on_behind_an_interruption_belong_to_the_run():
    lines = GATES.split("\n")
    text = "\n".join([*lines[:9], 'print("half way")', *lines[9:]])
    found = repeats(text)
    assert [(len(r.table.copies), len(r.more)) for r in found.runs] == [(3, 2)]
    assert not found.blocks
    finding = report(text).findings[0]
    assert len(finding.places) == 5
    assert "three times in a row, and two more behind an interruption" in finding.message


def test_an_interruption_ends_a_run_where_something_else_follows():
    text = GATES + 'print("half way")\nprint("Boat 3")\nlength = 4\nprint("is", length * 10)\n'
    assert [len(r.more) for r in repeats(text).runs] == [0]


def test_a_repeat_made_of_shorter_copies_is_told_as_these():
    copy = 'n = int(input("{0}: "))\nsold = count(n, "{0}")\nprint("so far", sold, n)\nlog(sold, "{0}", n)\n'
    text = (
        "".join(copy.format(w) for w in ("mill", "quay"))
        + "bell()\n"
        + "".join(copy.format(w) for w in ("pier", "dock"))
    )
    assert [len(b.table.copies) for b in repeats(text).blocks] == [4]


def test_three_loops_through_the_same_text_are_seen_though_they_ask_different_methods() -> None:
    tests = (("upper", "isupper"), ("lower", "islower"), ("digits", "isdigit"))
    loops = [f"for ch in password:\n    if ch.{test}():\n        {count} += 1\n" for count, test in tests]
    text = 'password = "Sea-gull7"\nupper = lower = digits = 0\n{}print(upper, lower, digits)\n'
    (block,) = repeats(text.format("".join(loops))).blocks
    assert len(block.table.copies) == 3
    assert not repeats(text.format("".join(loops[:2]))).blocks
