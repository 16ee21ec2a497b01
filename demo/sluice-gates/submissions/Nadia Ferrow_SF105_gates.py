# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"


def print_heading():
    print(STATION)
    print("sluice gates, morning round")


def gate_opening(level):
    if level > 300:
        return 100
    elif level > 200:
        return 50
    return 0


def north_gate():
    level = 311
    opening = gate_opening(level)
    print("North gate")
    print("   level  ", level, "cm")
    print("   opening", opening, "%")
    return level


def mill_gate():
    level = 254
    opening = gate_opening(level)
    print("Mill gate")
    print("   level  ", level, "cm")
    print("   opening", opening, "%")
    return level


def harbour_gate():
    level = 197
    opening = gate_opening(level)
    print("Harbour gate")
    print("   level  ", level, "cm")
    print("   opening", opening, "%")
    return level


def ferry_gate():
    level = 222
    opening = gate_opening(level)
    print("Ferry gate")
    print("   level  ", level, "cm")
    print("   opening", opening, "%")
    return level


def mean_level(levels):
    return sum(levels) / len(levels)


def main():
    print_heading()
    a = north_gate()
    b = mill_gate()
    c = harbour_gate()
    d = ferry_gate()
    print("mean level:", mean_level([a, b, c, d]), "cm")


main()
