# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

def print_heading():
    print(STATION)
    print("gates"

def gate_opening(level):
    if level > 300:
        return 100
    return 20

def print_gate(number, level):
    print("gate", number)
    print("  level", level)
    print("  opening", gate_opening(level))

def mean_level(levels):
    total = 0
    for level in levels:
        total = total + level
    return total / len(levels)

def main():
    print_heading()
    print_gate(1, 300)
    print_gate(2, 320)
    print_gate(3, 210)
    print(mean_level([300, 320, 210]))

main()
