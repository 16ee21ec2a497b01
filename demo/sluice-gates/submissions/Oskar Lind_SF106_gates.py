# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"


def print_heading():
    print(STATION)
    print("-" * 40)


def main():
    print_heading()
    names = ["north", "mill", "harbour", "east", "ferry"]
    levels = [304, 276, 231, 190, 215]

    # find the highest level
    highest = levels[0]
    where = names[0]
    for i in range(len(levels)):
        if levels[i] > highest:
            highest = levels[i]
            where = names[i]
    print("Highest:", where, highest, "cm")

    # work out the openings
    openings = []
    for level in levels:
        if level > 300:
            openings.append(100)
        elif level > 200:
            openings.append((level - 200) // 2)
        else:
            openings.append(0)

    # print the table
    print("gate       level  open")
    for i in range(len(names)):
        line = names[i].ljust(10)
        line = line + str(levels[i]).rjust(6)
        line = line + str(openings[i]).rjust(6)
        print(line)

    # warn about gates that are shut
    shut = 0
    for i in range(len(names)):
        if openings[i] == 0:
            print("The", names[i], "gate is shut.")
            shut = shut + 1
    if shut == 0:
        print("All gates are open.")
    else:
        print(shut, "gates are shut.")

    # put the gates in the order of their levels
    order = list(range(len(names)))
    for i in range(len(order)):
        for k in range(len(order) - 1):
            if levels[order[k]] < levels[order[k + 1]]:
                keep = order[k]
                order[k] = order[k + 1]
                order[k + 1] = keep
    print("From high to low:")
    for i in order:
        print("  ", names[i], levels[i])

    # a name is written too long for the board
    board = ""
    for name in names:
        short = name[0:3].upper()
        if board == "":
            board = short
        else:
            board = board + "-" + short
    print("Board:", board)

    # mean of the levels
    total = 0
    for level in levels:
        total = total + level
    print("Mean level:", total / len(levels), "cm")


main()
