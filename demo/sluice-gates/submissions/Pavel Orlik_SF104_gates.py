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

    print("The mean is", mean_level(levels))

main()
