# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

READINGS = [("north", 308), ("mill", 259), ("harbour", 222), ("east", 181)]


def print_heading():
    print(f"{STATION}: gates")
    print("." * 34)


def gate_opening(level):
    steps = [(300, 100), (250, 70), (200, 40)]
    for bound, opening in steps:
        if level > bound:
            return opening
    return 0


def print_gate(number, name, level):
    print(f"{number}. {name:<9} {level} cm {gate_opening(level):>3} %")


def main():
    print_heading()
    for number, (name, level) in enumerate(READINGS, start=1):
        print_gate(number, name, level)
    # mean of the levels
    total = 0
    for _, level in READINGS:
        total += level
    mean = total / len(READINGS)
    print(f"mean {mean:.1f} cm")


if __name__ == "__main__":
    main()
