# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

LEVELS = [310, 244, 287, 198]


def print_heading():
    print(STATION)


def gate_opening(level):
    if level > 250:
        return "open it"
    return "leave it shut"


def print_gate(level):
    print("Gate at", level, "cm")
    print("   " + gate_opening(level))


def mean_level(levels):
    return sum(levels) / len(levels)


def main():
    print_heading()
    for level in LEVELS:
        print_gate(level)
    print("mean", mean_level(LEVELS))
    print("done")


main()
