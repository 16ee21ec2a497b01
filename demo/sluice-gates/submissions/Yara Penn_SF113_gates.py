# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

LEVELS = [301, 256, 207, 164]


def print_heading():
    print(STATION)


def gate_opening(level):
    if level > 280:
        return 100
    if level > 180:
        return 40
    return 5


def print_gate(number, level):
    print("Gate", number, ":", level, "cm ->", gate_opening(level), "%")


def mean_level(levels):
    total = 0
    for level in levels:
        total += level
    return total / len(levels)


def warn_flood(level):
    if level > 350:
        print("FLOOD! Ring the bell.")


def main():
    print_heading()
    for i in range(len(LEVELS) + 1):
        print_gate(i + 1, LEVELS[i])
    print("mean", meanlevel(LEVELS))


main()
