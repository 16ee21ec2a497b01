# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

def print_heading():
    print("---", STATION, "---")

def gate_opening(level):
    if level > 300:
        return "open"
    return "shut"

def print_gate(name, level):
    print("Gate", name)
    print("   the level is", level, "cm")
    print("   the gate is", gate_opening(level))

def print_gate(name, level):
    print("Gate", name, "with", level, "cm is", gate_opening(level))

def mean_level(levels):
    total = 0
    number = 0
    for level in levels:
        total = total + level
        number = number + 1
    return total / number

def main():
    print_heading()
    print_gate("A", 301)
    print_gate("B", 240)
    print_gate("C", 333)
    for i in range(10, 0):
        print("checking again in", i)
    print("Mean", mean_level([301, 240, 333]))

main()
