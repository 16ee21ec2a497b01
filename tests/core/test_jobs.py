"""Where the job of a missing function is done, and the function that is made of it."""

from random import Random
from textwrap import dedent

import pytest
from builders import printed, source
from runners import require_same_output
from wild_jobs import wild_jobs

from partitor.check import check
from partitor.exchange.assignment import Assignment
from partitor.exchange.report import SubmissionReport
from partitor.procedures.jobs import MOST_PLACES
from partitor.procedures.vocabulary import are_opposed, deeds_asked
from partitor.procedures.wanted import RequiredFunction
from partitor.reading.collect import Submission
from partitor.records import Suggestion


def asked(text: str, *functions: str, language: str = "python") -> SubmissionReport:
    """A program's report where these are asked for: `name/parameters/r: purpose`, without `r` for no result."""
    required = []
    for function in functions:
        head, purpose = function.split(": ")
        name, parameters, result = head.split("/")
        required.append(RequiredFunction(name=name, parameters=int(parameters), returns=result == "r", purpose=purpose))
    assignment = Assignment(language=language, functions=tuple(required))
    return check(Submission("x", (source(text, language),)), assignment)


def lines_told(report: SubmissionReport, name: str) -> list[tuple[int, int]]:
    """The lines that are told to do a function's job; none where it is only said to be missing."""
    found = [f for f in report.findings if f.rule == "missing-function" and f.subject == name and not f.whole]
    return [(p.start_line, p.end_line) for f in found for p in f.places]


def answer(report: SubmissionReport) -> str:
    return next(iter(report.worked_answer.files.values()))


PLACES = [
    (
        "count_frost/1/r: how many nights had frost",
        """
        nights = [3, -1, 0, -4]
        mild = 0
        for n in nights:
            if n > 1:
                mild += 1
        frost = 0
        for n in nights:
            if n < 0:
                frost += 1
        print(mild, frost)
        """,
        (6, 9),
    ),
    (
        "deepest/1/r: the deepest of some basins",
        """
        basins = [4, 9, 7]
        low = basins[0]
        deep = basins[0]
        for b in basins:
            if b > deep:
                deep = b
        print(low, deep)
        """,
        (3, 6),
    ),
    (
        "last_boat/1/r: the name of the boat that comes latest",
        """
        boats = [("Gull", 14), ("Tern", 19)]
        late = 0
        last = ""
        for name, hour in boats:
            if hour > late:
                late = hour
                last = name
        print("Last boat:", last)
        """,
        (2, 7),
    ),
    (
        "is_leap/1/r: whether a year is a leap year",
        """
        year = 1900
        leap = False
        if year % 4 == 0:
            leap = True
        if year % 100 == 0 and year % 400 != 0:
            leap = False
        print(leap)
        """,
        (2, 6),
    ),
    (
        "ask_depth/0/r: asks for a depth until it is possible",
        """
        print("Soundings")
        depth = int(input("Depth: "))
        while depth < 0:
            depth = int(input("Not below 0: "))
        print(depth)
        """,
        (2, 4),
    ),
    (
        "postage/1/r: what a letter of a weight costs",
        """
        weight = 80
        if weight < 20:
            cost = 1
        elif weight < 100:
            cost = 2
        else:
            cost = 4
        print("Postage:", cost)
        """,
        (2, 7),
    ),
    (
        "encrypt/2/r: moves each letter by a key",
        """
        word, key = "mud", 3
        out = ""
        for c in word:
            out += chr((ord(c) - 97 + key) % 26 + 97)
        print(out)
        """,
        (2, 4),
    ),
    (
        "roll/0/r: rolls a die",
        """
        import random
        random.seed(3)
        gained = random.randint(1, 6)
        print("You rolled", gained)
        """,
        (3, 3),
    ),
    (
        "show_rules/0/: shows the rules of the game",
        """
        points = 3 * 7
        print("Each of you draws a card.")
        print("The higher card wins.")
        print("Good luck!")
        name = input("Your name: ")
        print(name, points)
        """,
        (2, 4),
    ),
    (
        "print_tides/1/: one line for each tide",
        """
        tides = [1.2, 4.1]
        total = 0
        for t in tides:
            total = total + t
        print("mean", total / 2)
        number = 1
        for t in tides:
            print(number, t)
            number += 1
        """,
        (7, 9),
    ),
]


@pytest.mark.parametrize(("function", "program", "lines"), PLACES, ids=[p[0].split("/")[0] for p in PLACES])
def test_a_job_is_found_and_taken_out(function, program, lines):
    report = asked(program, function)
    name = function.split("/")[0]
    ((first, last),) = lines_told(report, name)
    assert first <= lines[0] + 1
    assert last == lines[1]
    assert f"def {name}(" in answer(report)
    assert printed(answer(report)) == printed(dedent(program))


OTHERS = {
    "javascript": (
        "shippingFor/1/r: the shipping for an amount",
        """
        const amount = 30;
        let shipping;
        if (amount > 50) {
          shipping = 0;
        } else {
          shipping = 4;
        }
        console.log("Shipping " + shipping);
        """,
        (2, 7),
    ),
    "java": (
        "wettest/1/r: the index of the month with most rain",
        """
        public class Main {
            public static void main(String[] args) {
                int[] rain = {88, 60, 91};
                int best = 0;
                for (int i = 1; i < rain.length; i++) {
                    if (rain[i] > rain[best]) {
                        best = i;
                    }
                }
                System.out.println("Most rain in month " + (best + 1));
            }
        }
        """,
        (4, 9),
    ),
    "c": (
        "mean/2/r: the mean of some values",
        """
        #include <stdio.h>
        int main(void) {
            int values[4] = {3, 7, 5, 2};
            int i;
            double sum = 0;
            for (i = 0; i < 4; i++) {
                sum += values[i];
            }
            double average = sum / 4;
            printf("mean %.2f\\n", average);
            return 0;
        }
        """,
        (5, 9),
    ),
    "cpp": (
        "readGuess/0/r: reads a guess from 1 to 10",
        """
        #include <iostream>
        using namespace std;
        int main() {
            int secret = 7;
            int guess = 0;
            cout << "Guess: ";
            cin >> guess;
            while (guess < 1 || guess > 10) {
                cout << "1 to 10 please: ";
                cin >> guess;
            }
            cout << (guess == secret) << endl;
            return 0;
        }
        """,
        (5, 11),
    ),
    "arduino": (
        "readDistance/0/r: measures the distance in cm",
        """
        const int TRIG = 7;
        const int ECHO = 8;
        void setup() {
          pinMode(TRIG, OUTPUT);
        }
        void loop() {
          digitalWrite(TRIG, HIGH);
          delay(10);
          digitalWrite(TRIG, LOW);
          long echo = analogRead(ECHO);
          long distance = echo / 58;
          Serial.println(distance);
          delay(500);
        }
        """,
        (7, 11),
    ),
    "csharp": (
        "CountAdults/1/r: how many members are adults",
        """
        using System;
        class Club
        {
            static void Main()
            {
                int[] ages = { 17, 34, 21 };
                int adults = 0;
                foreach (int age in ages)
                {
                    if (age >= 18)
                    {
                        adults++;
                    }
                }
                Console.WriteLine("Adults: " + adults);
            }
        }
        """,
        (7, 14),
    ),
    "swift": (
        "fastest/1/r: the shortest of some times",
        """
        let times = [62.5, 60.1, 63.0]
        var best = times[0]
        for t in times {
            if t < best {
                best = t
            }
        }
        print("best \\(best)")
        """,
        (2, 7),
    ),
    "visualbasic": (
        "ShowHeading/0/: writes the heading",
        """
        Sub Main()
            Dim total As Integer
            Debug.Print "STOCK LIST"
            Debug.Print "=========="
            total = 3
            Debug.Print total
        End Sub
        """,
        (3, 4),
    ),
}


@pytest.mark.parametrize("language", OTHERS)
def test_in_other_languages_too(language, tmp_path):
    function, program, lines = OTHERS[language]
    report = asked(program, function, language=language)
    name = function.split("/")[0]
    assert lines_told(report, name) == [lines]
    assert f"{name}(" in answer(report)
    if language != "cpp":
        require_same_output(language, dedent(program).lstrip("\n"), answer(report), tmp_path)


def test_what_is_asked_for_is_given_to_the_function():
    report = asked(
        """
        boats = ["Gull", "Tern"]
        wanted = "Tern"
        where = -1
        for i in range(len(boats)):
            if boats[i] == wanted:
                where = i
        print(where)
        """,
        "find_boat/2/r: position of a boat, or -1",
    )
    assert "def find_boat(boats, wanted):" in answer(report)
    assert "where = find_boat(boats, wanted)" in answer(report)


def test_a_loops_variable_is_given_to_the_function_too():
    report = asked(
        """
        for f in [50, 68]:
            c = (f - 32) * 5 / 9
            print(f, c)
        """,
        "to_celsius/1/r: converts degrees Fahrenheit",
    )
    assert "def to_celsius(f):\n    return (f - 32) * 5 / 9\n" in answer(report)
    assert "c = to_celsius(f)" in answer(report)


def test_a_job_that_is_done_twice_is_one_function():
    report = asked(
        """
        print("Small")
        for row in range(1, 4):
            print("*" * row)
        print("Large")
        for row in range(1, 7):
            print("*" * row)
        """,
        "draw_triangle/1/: a triangle of stars with so many rows",
    )
    assert lines_told(report, "draw_triangle") == [(2, 3), (5, 6)]
    finding = next(f for f in report.findings if f.subject == "draw_triangle")
    assert "the lines in two places in the main program do its job" in finding.message
    assert answer(report).count("draw_triangle(") == 3


def test_jobs_may_stand_in_each_other_but_share_no_line_otherwise():
    report = asked(
        """
        seen = ["gull", "tern", "gull"]
        best = ""
        most = 0
        for kind in ["gull", "tern"]:
            n = 0
            for bird in seen:
                if bird == kind:
                    n += 1
            if n > most:
                most = n
                best = kind
        print("Most seen:", best)
        """,
        "most_frequent/1/r: the bird that was seen most often",
        "count_birds/2/r: how often a bird was seen",
    )
    assert lines_told(report, "count_birds") == [(5, 8)]
    ((first, last),) = lines_told(report, "most_frequent")
    assert (first, last) == (2, 11)


def test_a_function_that_does_the_job_under_a_name_that_says_nothing():
    report = asked(
        """
        def calc(values):
            s = 0
            for v in values:
                s = s + v
            return s / len(values)

        print(calc([3, 6]))
        """,
        "mean_level/1/r: the mean of the levels",
    )
    (finding,) = (f for f in report.findings if f.rule == "missing-function")
    assert "it is there as calc" in finding.message
    assert "def mean_level(values):" in answer(report)


@pytest.mark.parametrize(
    ("function", "program"),
    [
        ("median/1/r: the middle value of a sorted list", "for name in ['Ida']:\n    print('Hello', name)\n"),
        (
            "largest/1/r: the largest number of a list",
            "marks = [3, 5]\npassed = 0\nfor m in marks:\n    if m < 5:\n        passed += 1\nprint(passed, 'passed')\n",
        ),
        (
            "decrypt/2/r: turns a secret text back",
            "def encrypt(text, key):\n    out = ''\n    for c in text:\n        out += chr(ord(c) + key)\n    return out\n\n"
            "print(encrypt('abc', 2))\n",
        ),
        (
            "save_scores/1/: saves the scores in a file",
            "scores = [3, 9]\ntotal = 0\nfor s in scores:\n    total += s\nprint('mean', total / len(scores))\n",
        ),
        (
            "count_doors/1/r: counts the doors",
            "a = [1, 5]\nx = 0\nfor v in a:\n    if v > 3:\n        x += 1\ny = 0\nfor v in a:\n    while v > 1:\n        y += 1\n"
            "        v -= 1\nprint(x, y)\n",
        ),
    ],
    ids=["nothing alike", "another deed", "the opposite", "words alone", "two could be it"],
)
def test_a_job_that_is_done_nowhere_is_told_nowhere(function, program):
    report = asked(program, function)
    assert lines_told(report, function.split("/")[0]) == []
    assert any(f.rule == "missing-function" and f.whole for f in report.findings)


def test_another_functions_own_work_is_not_it():
    report = asked(
        """
        def total_weight(kilos):
            weight = 0
            for k in kilos:
                weight += k
            return weight

        print(total_weight([3, 4]))
        """,
        "total_weight/1/r: the weight of all",
        "total_price/1/r: the price of all",
    )
    assert lines_told(report, "total_price") == []


def test_deeds_are_read_from_name_and_purpose():
    assert deeds_asked(["count", "late"], [])["count"] == 1.0
    assert deeds_asked(["late"], ["how", "many", "trains", "are", "late"])["count"] == 0.9
    assert deeds_asked(["wettest"], []) == {"largest": 0.9, "smallest": 0.9}
    assert deeds_asked(["largest"], "the largest number of a list".split())["count"] < 0.5
    assert deeds_asked(["guest"], []) == {}


def test_opposites_are_no_misspellings():
    assert are_opposed(["decrypt", "text"], ["encrypt", "text"])
    assert not are_opposed(["print", "gate"], ["print", "gaet"])


def test_of_very_many_places_some_are_told():
    report = asked(
        "".join(f"print('value', {n * n})\n" + "print()\n" * (n % 3) for n in range(120)),
        "print_value/1/: prints one value",
    )
    assert 3 < len(lines_told(report, "print_value")) <= MOST_PLACES + 1


def test_wild_programs_do_the_same_after_their_jobs_were_taken_out():
    told = 0
    for seed in range(40):
        text, functions = wild_jobs(Random(seed))
        report = check(Submission("x", (source(text),)), Assignment(functions=functions))
        told += sum(f.rule == "missing-function" and not f.whole for f in report.findings)
        texts = [*report.worked_answer.files.values(), *(_patched(text, s) for s in report.suggestions)]
        before = printed(text)
        assert {printed(after) for after in texts} <= {before}, text
    assert told > 60


def _patched(text: str, suggestion: Suggestion) -> str:
    lines = text.split("\n")
    for change in sorted(suggestion.changes, key=lambda c: (-c.start_line, c.end_line < c.start_line)):
        lines[change.start_line - 1 : change.end_line] = change.text.rstrip("\n").split("\n")
    return "\n".join(lines)
