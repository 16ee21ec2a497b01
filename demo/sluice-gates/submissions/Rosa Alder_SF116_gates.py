# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

levels = {"north": 310, "mill": 250, "harbour": 0, "east": 190}
broken = ["harbour"]


def print_heading():
    print(STATION)


def gate_opening(level):
    return (level - 150) // 2


def print_gate(name, level, storm):
    if level > 0:
        if name not in broken:
            if storm:
                if level > 300:
                    if gate_opening(level) > 70:
                        print(name, "is wide open in the storm")
                    else:
                        print(name, "is half open in the storm")
                else:
                    print(name, "stays shut in the storm")
            else:
                print(name, gate_opening(level), "%")
        else:
            print(name, "is being mended")
    else:
        print(name, "has no reading")


def mean_level(readings):
    good = [level for level in readings if level > 0]
    return sum(good) / len(good)


def main():
    print_heading()
    for name in levels:
        print_gate(name, levels[name], False)
    print()
    for name in levels:
        print_gate(name, levels[name], True)
    print("mean", round(mean_level(levels.values())), "cm")


main()
