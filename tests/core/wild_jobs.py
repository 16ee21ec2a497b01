"""Wild programs in which the jobs of several functions are done one after the other, and the functions asked for."""

from __future__ import annotations

from random import Random

from partitor.procedures.wanted import RequiredFunction

JOBS = [
    ("count_big/1/r: how many values are big", "{v} = 0\nfor x in {l}:\n    if x > {k}:\n        {v} += 1\n"),
    ("largest/1/r: the largest value", "{v} = {l}[0]\nfor x in {l}:\n    if x > {v}:\n        {v} = x\n"),
    ("total/1/r: adds up all values", "{v} = 0\nfor x in {l}:\n    {v} = {v} + x\n"),
    ("mean/1/r: the mean of the values", "s = 0\nfor x in {l}:\n    s += x\n{v} = s / len({l})\n"),
    (
        "find_value/2/r: the position of a value, or -1",
        "{v} = -1\nfor i in range(len({l})):\n    if {l}[i] == {k}:\n        {v} = i\n",
    ),
    ("to_text/1/r: writes the values as a text", "{v} = ''\nfor x in {l}:\n    {v} = {v} + str(x) + ' '\n"),
    (
        "price/1/r: the price for an amount",
        "if {k} > 4:\n    {v} = 7\nelif {k} > 2:\n    {v} = 5\nelse:\n    {v} = 1\n",
    ),
    ("print_values/1/: one line for each value", "for x in {l}:\n    print('value', x)\n"),
    ("show_title/0/: shows the title", "print('=====')\nprint('VALUES')\nprint('=====')\n"),
    ("double_all/1/r: a list of all values doubled", "{v} = []\nfor x in {l}:\n    {v}.append(x * 2)\n"),
    (
        "is_sorted/1/r: whether the values are in order",
        "{v} = True\nfor i in range(len({l}) - 1):\n    if {l}[i] > {l}[i + 1]:\n        {v} = False\n",
    ),
    ("convert/1/r: converts degrees", "{v} = ({k} - 32) * 5 / 9\n{v} = round({v}, 1)\n"),
    ("mean_of/1/r: the average of the values", "s = 0\nfor x in {l}:\n    s += x\nprint('average:', s / len({l}))\n"),
    ("area/2/r: the area of a field", "w = {k}\nh = number\nprint(f'{{w}} by {{h}}: area {{w * h}}')\n"),
    ("mean_of/1/r: the average of the values", "print('average', sum({l}) / len({l}), note)\n"),
    ("price_of/2/r: price times pieces", "for x in {l}:\n    {v} += x * {k}\n"),
    ("warmest/1/r: the warmest one", "print('so', input() if {k} > 4 else '', 'warmest', max({l}))\n"),
    ("is_high/1/r: whether a value is high", "if {k} > 3:\n    print('high')\nelse:\n    {v} = 2\n"),
    ("is_between/2/r: whether a value is in between", "for x in {l}:\n    if {k} <= x < 8:\n        {v} = x\n"),
    ("has_more/2/r: whether there is more", "if sum({l}) > {v} or {k} == 3:\n    log.append('more')\n"),
    (
        "deposit/2/r: the new sum after a deposit, if there is any",
        "if {k} > 2:\n    {v} += {k}\nelse:\n    print('none')\n",
    ),
    ("withdraw/2/r: what is left", "{v} -= {k}\nprint('left', {v})\n"),
    ("add_to/3/: adds an amount to the table", "table['some'] = table['some'] + {k}\n"),
    ("double_in_place/1/: doubles all values", "for i in range(len({l})):\n    {l}[i] = {l}[i] * 2\n"),
    (
        "menu/0/r: shows the choices and gives back what was chosen",
        "print('1 on')\nprint('2 off')\n{v} = input('> ')\n",
    ),
    ("read_number/0/r: reads a number", "text = input('number: ')\n{v} = int(text)\n"),
    ("without_marks/1/r: the text without marks", "print(note.replace('s', ''), {v})\n"),
    ("product/1/r: the product of all values", "{v} = 1\nfor x in {l}:\n    {v} *= x\n"),
]
NOISE = [
    "print('next')\n",
    "rows.append([2])\n",
    "rows[0] = values\n",
    "table['some'] = 5\n",
    "note = {v}\nprint(note)\n",
    "log.append({v})\n",
    "# so far\n",
    "\n",
    "{v} = 3\n",
]
NAMES = ["a", "b", "total", "best", "result", "n", "mean"]


def wild_jobs(random: Random) -> tuple[str, tuple[RequiredFunction, ...]]:
    """A program, and the functions whose jobs it does; variables are used again for something else."""
    text = f"values = {[random.randint(1, 9) for _ in range(4)]}\nlevels = {[random.randint(1, 9) for _ in range(3)]}\n"
    text += "rows = [[4, 2, 7], levels, [1]]\ntable = {'some': 4, 'more': 9}\n"
    text += f"note = 'so'\n{random.choice(NAMES)} = 0\nlog = []\nnumber = {random.randint(1, 9)}\nlimit = {random.randint(1, 9)}\n"
    text += "".join(f"{name} = {random.randint(0, 5)}\n" for name in NAMES if random.random() < 0.3)
    asked: list[str] = []
    for _ in range(random.randint(3, 6)):
        function, job = random.choice(JOBS)
        variable, values = random.choice(NAMES), random.choice(["values", "levels"])
        number = random.choice(["number", "limit", "table['some']", "levels[number % 3]", str(random.randint(1, 9))])
        if random.random() < 0.3:
            values, number = "rows[q]", random.choice(["q", "levels[q]", number])
        lines = job.format(v=variable, l=values, k=number)
        if values == "rows[q]":
            inside = random.choice(["", "", "rows[q] = [1]\n", "levels.append(q)\n", "print(q)\n"])
            lines = "for q in range(3):\n" + _indented(lines + inside)
        elif random.random() < 0.25:
            lines = f"for {random.choice(['number', 'q'])} in (2, 5):\n" + _indented(lines)
        asked += [function] if function not in asked else []
        text += lines
        known = f"{variable} =" in text
        text += random.choice(NOISE).format(v=variable) if known and random.random() < 0.6 else ""
        text += f"print('{variable}', {variable})\n" if f"\n{variable} =" in text and random.random() < 0.6 else ""
    if random.random() < 0.5:
        text = f"def main():\n{_indented(text)}\nmain()\n"
    return text, tuple(_required(function, random) for function in asked)


def _indented(text: str) -> str:
    return "".join(f"    {line}\n" if line.strip() else "\n" for line in text.rstrip("\n").split("\n"))


def _required(function: str, random: Random) -> RequiredFunction:
    head, purpose = function.split(": ")
    name, parameters, result = head.split("/")
    return RequiredFunction(
        name=name,
        parameters=random.choice([int(parameters), None]),
        returns=random.choice([result == "r", None]),
        purpose=purpose,
    )
