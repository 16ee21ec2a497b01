# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"


class Gate:
    def __init__(self, name, level):
        self.name = name
        self.level = level

    def is_flooded(self):
        return self.level > 300


def print_heading(title):
    print(title)
    print("=" * len(title))


def gate_opening(level):
    return max(0, min(100, level - 200))


def print_gate(gate):
    text = gate.name + ": " + str(gate.level) + " cm"
    if gate.is_flooded():
        text = text + " FLOOD"
    print(text, gate_opening(gate.level), "%")


def mean_level(gates):
    total = 0
    for gate in gates:
        total += gate.level
    return total / len(gates)


def main():
    gates = [Gate("north", 312), Gate("mill", 245), Gate("east", 170)]
    print_heading(STATION)
    for gate in gates:
        print_gate(gate)
    print("mean level", mean_level(gates))


main()
