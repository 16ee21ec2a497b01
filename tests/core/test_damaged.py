"""Programs that are not whole: the demo's in every language, damaged here and there, are checked without raising."""

from __future__ import annotations

from pathlib import Path
from random import Random

import pytest

from core.builders import FILE_NAMES, ROOT, report, worked
from partitor.check import check
from partitor.exchange.assignment import Assignment
from partitor.languages.registry import language_of
from partitor.procedures.wanted import RequiredFunction
from partitor.reading.collect import Submission
from partitor.source import Source

ASKED = (
    RequiredFunction(name="print_values", parameters=1, purpose="prints the values"),
    RequiredFunction(name="mean", parameters=1, returns=True, purpose="the mean of a list"),
)
SIGNS = "()[]{}\"';#|`,@ \n:=\\\té∑"
EACH = 40
"""Damaged texts of each language."""


def demo_texts() -> dict[str, list[str]]:
    """The demo's programs by language."""
    found: dict[str, list[str]] = {}
    folder = ROOT / "demo"
    for path in sorted([*folder.glob("*/submissions/*"), *folder.glob("seed-labels/*")]):
        language = language_of(path.name)
        if path.is_file() and language is not None and language.id in FILE_NAMES:
            found.setdefault(language.id, []).append(path.read_text(errors="replace"))
    return found


TEXTS = demo_texts()


def damaged(random: Random, text: str) -> str:
    """The text with some of it gone, put in, moved or said again."""
    signs = list(text)
    for _ in range(random.randint(1, 5)):
        place, way = random.randrange(len(signs) + 1), random.random()
        if way < 0.3:
            del signs[place : place + random.randint(1, 12)]
        elif way < 0.6:
            signs.insert(place, random.choice(SIGNS))
        else:
            other = random.randrange(len(signs) + 1)
            piece = signs[other : other + random.randint(1, 60)]
            signs[place:place] = piece * random.randint(1, 3)
    return "".join(signs)


@pytest.mark.parametrize("language", sorted(TEXTS))
def test_what_is_damaged_is_checked(language: str) -> None:
    random = Random(f"damaged {language}")
    every = [text for texts in TEXTS.values() for text in texts]
    for k in range(EACH):
        text = damaged(random, random.choice(TEXTS[language]))
        if k % 4 == 0:
            # Somebody handed in two files in one.
            text += "\n" + random.choice(every)
        asked = Assignment(functions=ASKED) if k % 2 else Assignment()
        path = Path(FILE_NAMES[language]).name
        found = check(Submission("x", (Source(path, text, language),)), asked)
        lines = text.count("\n") + 1
        for finding in found.findings:
            assert all(1 <= p.start_line <= p.end_line <= lines for p in finding.places), text
        for problem in (p for file in found.files for p in file.problems):
            assert 1 <= problem.line <= lines, text


WORDS = {"cat": "chat", "dog": "chien", "house": "maison", "boat": "bateau", "sea": "mer"}
MET = {
    "a choice that ends in what is no branch": (
        "python",
        "".join(f'{"elif" if k else "if"} word == "{w}":\n    print("{WORDS[w]}")\n' for k, w in enumerate(WORDS))
        + 'elsnt("mer")\nelse:\n    print("unknown")\n',
    ),
    "an else that does nothing to read": (
        "python",
        "".join(f'{"elif" if k else "if"} c == "{c}":\n    out += "{k + 3}"\n' for k, c in enumerate("aeios"))
        + "else:\n    out  c\n",
    ),
    "a mark behind everything": ("swift", 'print("Area: \\(width * length)")   @@area\n'),
    "a method of nothing": (
        "python",
        """\
class House:
    def __init__(self):
        self.kitchen = 18
        self.bath = 20
    def warm_kitchen(self, to):
        while self.kitchen < to:
            self.kitchen += 1
            print("kitchen", self.kitchen)
        print("kitchen is warm")
    def warm_bath(self, to):
        while self.bath < to:
            self.bath += 1
            print("bath", self.bath)
        print("bath is warm")
h = House()
h.warm_kitchen(20)
h.warm_bath(23)
.warm_bath(23)
.warm_bath(23)
""",
    ),
    "a loop among what does not belong to it": (
        "python",
        """def load  boats = []
    for line in f:
        line = line.strip()
        if line == "":
            continue
        name, length, price = line.split(";")
        boats.append([name, float(length), int(price)])
    f.close()
def search_name(boats):
    text = input("Part of the name: ").lower()
    found = []
        print("There is no such boat")
            search_name(boats)
        elif choice == "3":
            search_price(boats)
        elif choice == "4":
            add_boat(boats)
main()
function setup() {
}
function draw() {
  rect(150, 95, 12, 18);
  rect(176, 95, 12, 18);
  rect(150, 130, 12, 18);
  rect(310, 165, 12, 18);
  rect(336, 165, 12, 18);
  rect(310, 200, 12, 18);
  rect(336, 200, 12, 18);
}
""",
    ),
    "a variable whose name is part of a text that is never closed": (
        "arduino",
        """int lastA = 0;
int lastB = 0;
void setup(ite(12, LOW);
    }
    lastB = b;
 ) {
  int a = digitalReek mill":
  if (a != lastA) {
    if (a == HIGH) {
      digitalWrite(11, HIGH);
      tone(6, 440, 100);
    } else {
      digitalWrite(11, LOW);
    }
    lastA = a;
  }
  int b = digitalRead(3);
    if (b == HIGH) {
      digitalWrite(12, HIGH);
      tone(6, 660, 100);
    } else {
      digitalWrite(12, LOW);
    }
    lastB = b;
""",
    ),
}
"""Texts at which the core once stumbled."""


@pytest.mark.parametrize("name", sorted(MET))
def test_what_was_met_before_is_checked(name: str) -> None:
    language, text = MET[name]
    assert report(text, language=language).files[0].problems


def test_two_copies_are_never_cut_to_one() -> None:
    lamps = "".join(f'if n == {k}:\n    lamp{k} = "on"\n' + ("print(n)\n" if k == 3 else "") for k in range(1, 6))
    told = report(
        'lamp1 = lamp2 = lamp3 = lamp4 = lamp5 = "off"\nn = int(input("which? "))\n' + lamps + "print(lamp1, lamp5)\n"
    )
    assert not told.files[0].problems


def test_fractions_below_one_are_fractions() -> None:
    sums = "".join(
        f'    tax = net * {rate}\n    total = net + tax\n    MsgBox "{name}"\n    MsgBox Round(total, 2)\n'
        for name, rate in [("Wine", "0.19"), ("Book", "0.07"), ("Bread", "0.05")]
    )
    text = f"Sub Main()\n    Dim net As Double, tax As Double, total As Double\n    net = 40\n{sums}End Sub\n"
    told = report(text, language="visualbasic")
    assert [f.rule for f in told.findings] == ["repeated-run"]
    assert "0.19" in worked(text, "visualbasic")
