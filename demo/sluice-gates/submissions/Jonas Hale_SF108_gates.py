# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

total = 0
count = 0


def print_heading():
    print("GATES OF THE", STATION.upper())


def gate_opening(level, gate):
    if level > 250:
        return "wide"
    return "narrow"


def print_gate(gate, level):
    global total, count
    print(gate, "at", level, "cm:", gate_opening(level, gate))
    total = total + level
    count = count + 1


def mean_level(levels):
    return total / count


def main():
    print_heading()
    print_gate("north", 287)
    print_gate("mill", 243)
    print_gate("harbour", 199)
    print_gate("east", 251)
    print("mean", mean_level([]))


main()
