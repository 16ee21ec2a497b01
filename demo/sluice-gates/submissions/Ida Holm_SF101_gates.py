# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

GATES = {"north": 312, "mill": 268, "harbour": 231, "east": 187, "ferry": 205}
FLOOD = 300
HIGH = 200


def print_heading(title):
    """Print the station's name over a line as long as itself."""
    print(title)
    print("-" * len(title))


def gate_opening(level):
    """How far a gate opens, in percent."""
    if level > FLOOD:
        return 100
    if level > HIGH:
        return (level - HIGH) // 2
    return 0


def print_gate(name, level):
    """Print the line of one gate."""
    opening = gate_opening(level)
    print(name.ljust(10), str(level).rjust(5), "cm", str(opening).rjust(5), "%")


def mean_level(levels):
    """The mean of the levels, to one decimal."""
    return round(sum(levels) / len(levels), 1)


def find_highest(gates):
    """The name of the gate with the highest water."""
    best = ""
    for name in gates:
        if best == "" or gates[name] > gates[best]:
            best = name
    return best


def main():
    print_heading(STATION + ": sluice gates")
    for name in GATES:
        print_gate(name, GATES[name])
    print("mean", mean_level(list(GATES.values())), "cm")
    print("highest at the", find_highest(GATES), "gate")


if __name__ == "__main__":
    main()
