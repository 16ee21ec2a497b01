# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"


def print_heading():
    print(STATION)
    print("morning and evening round")


def gate_opening(level):
    if level > 300:
        return 100
    if level > 200:
        return 50
    return 0


def morning_round(levels):
    print("MORNING")
    number = 1
    total = 0
    for level in levels:
        print("Gate", number, "level", level, "open", gate_opening(level))
        total = total + level
        number = number + 1
    mean = total / len(levels)
    print("mean level", round(mean, 1))
    if mean > 250:
        print("The evening shift must look at all gates.")


def evening_round(levels):
    print("EVENING")
    print("lamps on")
    number = 1
    total = 0
    for level in levels:
        print("Gate", number, "level", level, "open", gate_opening(level))
        total = total + level
        number = number + 1
    mean = total / len(levels)
    print("mean level", round(mean, 1))
    print("lock the hut")


def main():
    print_heading()
    morning_round([310, 265, 240])
    evening_round([290, 250, 210])


main()
