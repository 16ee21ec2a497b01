# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

def print_heading():
    print("*" * 30)
    print(STATION)
    print("*" * 30)

def mean_level(levels):
    return sum(levels) / len(levels)

def main():
    print_heading()
    levels = []

    level = 305
    opening = 0
    if level > 300:
        opening = 100
    elif level > 200:
        opening = 50
    print("North gate:", level, "cm, open", opening, "%")
    levels.append(level)

    level = 244
    opening = 0
    if level > 300:
        opening = 100
    elif level > 200:
        opening = 50
    print("Mill gate:", level, "cm, open", opening, "%")
    levels.append(level)

    level = 188
    opening = 0
    if level > 300:
        opening = 100
    elif level > 200:
        opening = 50
    print("Harbour gate:", level, "cm, open", opening, "%")
    levels.append(level)

    level = 263
    opening = 0
    if level > 300:
        opening = 100
    elif level > 200:
        opening = 50
    print("East gate:", level, "cm, open", opening, "%")
    levels.append(level)

    level = 215
    opening = 0
    if level > 300:
        opening = 100
    elif level > 200:
        opening = 50
    print("Ferry gate:", level, "cm, open", opening, "%")
    levels.append(level)

    # the two gates behind the dyke have no names yet
    level = 171
    opening = 0
    if level > 300:
        opening = 100
    elif level > 200:
        opening = 50
    print("Dyke gate one:", level, "cm, open", opening, "%")
    levels.append(level)

    level = 322
    opening = 0
    if level > 300:
        opening = 100
    elif level > 200:
        opening = 50
    print("Dyke gate two:", level, "cm, open", opening, "%")
    levels.append(level)

    print("The mean is", mean_level(levels))

    # which gates need somebody tonight
    print()
    print("Tonight:")
    late = 0
    for place in range(len(levels)):
        if levels[place] > 300:
            print("  gate", place + 1, "needs two people")
            late = late + 2
        elif levels[place] > 240:
            print("  gate", place + 1, "needs one person")
            late = late + 1
    if late == 0:
        print("  nobody, sleep well")
    else:
        print("  that makes", late, "people")

main()
