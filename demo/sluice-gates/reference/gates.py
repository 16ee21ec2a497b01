# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

LEVELS = [310, 270, 230, 190]


def print_heading():
    print(STATION)
    print("=" * len(STATION))


def gate_opening(level):
    if level > 300:
        return 100
    if level > 200:
        return 50
    return 0


def print_gate(number, level):
    print("Gate", number, "level", level, "cm, open", gate_opening(level), "%")


def mean_level(levels):
    total = 0
    for level in levels:
        total = total + level
    return total / len(levels)


def main():
    print_heading()
    for number in range(len(LEVELS)):
        print_gate(number + 1, LEVELS[number])
    print("Mean level:", mean_level(LEVELS), "cm")


main()
