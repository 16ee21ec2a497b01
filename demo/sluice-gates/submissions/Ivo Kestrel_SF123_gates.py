# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"


def main():
    print(STATION)
    print("Sluice gate plan for one day")
    print()

    # read the tide table
    table = "06:00 310;09:00 262;12:00 188;15:00 205;18:00 297;21:00 318"
    hours = []
    levels = []
    for part in table.split(";"):
        hour, level = part.split(" ")
        hours.append(hour)
        levels.append(int(level))

    # decide on the openings
    openings = []
    for level in levels:
        opening = 0
        if level > 300:
            opening = 100
        elif level > 250:
            opening = 60
        elif level > 200:
            opening = 30
        openings.append(opening)

    # print the plan
    print("time   level  opening")
    for i in range(len(hours)):
        print(hours[i], str(levels[i]).rjust(6), str(openings[i]).rjust(7), "%")
    print()

    # count how often the wheel is turned
    turns = 0
    last = 0
    for opening in openings:
        if opening != last:
            turns = turns + 1
            last = opening
    print("The wheel is turned", turns, "times.")

    # the longest time open
    longest = 0
    now = 0
    for opening in openings:
        if opening > 0:
            now = now + 3
        else:
            now = 0
        if now > longest:
            longest = now
    print("Longest time open:", longest, "hours")

    # mean of the levels
    total = 0
    for level in levels:
        total = total + level
    mean = total / len(levels)
    print("Mean level:", round(mean, 1), "cm")
    if mean > 260:
        print("A wet day.")
    else:
        print("An ordinary day.")


main()
