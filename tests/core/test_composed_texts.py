"""Texts in which a word and a number differ that stand elsewhere, too: they are put together of both."""

from __future__ import annotations

import pytest

from core.builders import repeats, worked
from core.runners import require_same_output

ENEMIES = [("rat", 6, 5), ("wolf", 10, 12), ("troll", 15, 30)]
PYTHON = """\
def fight_{0}(gold):
    enemy = {1}
    print("A {0} attacks!")
    while enemy > 0:
        enemy -= 4
        print("You hit the {0}")
    gold += {2}
    print("You beat the {0} and find {2} gold.")
    return gold


"""
CALLS = "print(fight_rat(1))\nprint(fight_wolf(2))\nprint(fight_troll(3))\n"
JAVA = """\
    static int fight{0}(int gold) {{
        int enemy = {1};
        System.out.println("A {0} attacks!");
        while (enemy > 0) {{
            enemy -= 4;
            System.out.println("You hit the {0}");
        }}
        gold += {2};
        System.out.println("You beat the {0} and find {2} gold.");
        return gold;
    }}

"""
C = """\
int fight{0}(int gold) {{
    int enemy = {1};
    printf("A {0} attacks!\\n");
    while (enemy > 0) {{
        enemy -= 4;
        printf("You hit the {0}\\n");
    }}
    gold += {2};
    printf("You beat the {0} and find {2} gold.\\n");
    return gold;
}}

"""
JAVASCRIPT = """\
function fight{0}(gold) {{
  let enemy = {1};
  console.log("A {0} attacks!");
  while (enemy > 0) {{
    enemy -= 4;
    console.log("You hit the {0}");
  }}
  gold += {2};
  console.log("You beat the {0} and find {2} gold.");
  return gold;
}}

"""


def filled(form: str, enemies=ENEMIES) -> str:
    return "".join(form.format(*enemy) for enemy in enemies)


def test_a_word_and_a_number_that_stand_elsewhere_make_the_text(tmp_path) -> None:
    text = filled(PYTHON) + CALLS
    after = worked(text)
    assert 'print(f"You beat the {name} and find {' in after
    assert after.count("def ") == 1
    require_same_output("python", text, after, tmp_path)


@pytest.mark.parametrize(
    ("language", "text"),
    [
        (
            "java",
            "public class Main {\n"
            + filled(JAVA)
            + "    public static void main(String[] args) {\n        System.out.println(fightrat(1) + fightwolf(2) + fighttroll(3));\n    }\n}\n",
        ),
        (
            "c",
            "#include <stdio.h>\n\n"
            + filled(C)
            + 'int main(void) {\n    printf("%d\\n", fightrat(1) + fightwolf(2) + fighttroll(3));\n    return 0;\n}\n',
        ),
        ("javascript", filled(JAVASCRIPT) + "console.log(fightrat(1) + fightwolf(2) + fighttroll(3));\n"),
    ],
)
def test_so_it_is_in_other_languages(language: str, text: str, tmp_path) -> None:
    after = worked(text, language)
    assert after.count("gold.") == 1
    require_same_output(language, text, after, tmp_path)


@pytest.mark.parametrize(
    ("said", "why"),
    [
        ("You beat the {0} and find 1{2} gold.", "another number"),
        ("You beat the {0}s and find {2} gold.", "the word is part of another one"),
        ("You beat the {0} and find {2}.50 gold.", "a fraction"),
    ],
)
def test_other_texts_stay_right(said: str, why: str, tmp_path) -> None:
    text = filled(PYTHON.replace("You beat the {0} and find {2} gold.", said)) + CALLS
    require_same_output("python", text, worked(text), tmp_path)


def test_a_word_of_two_and_a_number_that_is_no_other_are_a_text_of_their_own() -> None:
    enemies = [("rat", 6, 5), ("sea wolf", 10, 12), ("troll", 15, 30)]
    form = PYTHON.replace("def fight_{0}", "def fight_{1}").replace("gold += {2}", "gold += 7")
    (twins,) = repeats(filled(form, enemies)).twins
    whole = [c for c in twins.table.columns if any(spot.group >= 0 for spot in c.spots)]
    assert not whole


BEATS = [("rock", "scissors"), ("paper", "rock"), ("scissors", "paper")]
ROUNDS = """\
wins = 0
for mine, yours in [("rock", "rock"), ("scissors", "rock"), ("rock", "paper"), ("paper", "scissors"), ("paper", "rock")]:
"""
ROUND = """\
    {2} yours == "{0}":
        if mine == "{0}":
            print("A draw")
        elif mine == "{1}":
            print("{0} beats {1}: you win")
            wins += 1
        else:
            print("You lose")
"""


@pytest.mark.parametrize("said", ["{0} beats {1}: you win", "{1} loses to {0}", "{0}, {1}, {0}!", "{1}{0} it is"])
def test_two_words_that_stand_elsewhere_make_the_text(said: str, tmp_path) -> None:
    words = zip(BEATS, ("if", "elif", "elif"), strict=True)
    text = ROUNDS + "".join(ROUND.replace("{0} beats {1}: you win", said).format(*b, how) for b, how in words)
    after = worked(f"{text}print(wins)\n")
    if "{1}{0}" not in said:
        assert after.count("print(") == 4
        assert 'print(f"' in after
    require_same_output("python", f"{text}print(wins)\n", after, tmp_path)


def test_two_words_of_which_one_stands_nowhere_else_are_a_text_of_their_own(tmp_path) -> None:
    ways = zip(BEATS, ("if", "elif", "elif"), ("gravel", "card", "shears"), strict=True)
    text = ROUNDS + "".join(ROUND.replace("beats {1}", f"beats {more}").format(*b, how) for b, how, more in ways)
    require_same_output("python", f"{text}print(wins)\n", worked(f"{text}print(wins)\n"), tmp_path)
