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

    # between which hours does the water rise fastest
    steepest = 0
    begin = ""
    end = ""
    for i in range(1, len(levels)):
        rise = levels[i] - levels[i - 1]
        if rise > steepest:
            steepest = rise
            begin = hours[i - 1]
            end = hours[i]
    if steepest > 0:
        print("It rises fastest between", begin, "and", end, "by", steepest, "cm")
    else:
        print("It does not rise today.")

    # who has to come: early shift until noon, late shift after
    early = 0
    late = 0
    last = 0
    for i in range(len(hours)):
        hour = int(hours[i].split(":")[0])
        if openings[i] != last:
            if hour < 12:
                early = early + 1
            else:
                late = late + 1
        last = openings[i]
    print("Early shift:", early, "turns, late shift:", late, "turns")
    if early > late:
        print("The late shift brings the cake.")
    elif late > early:
        print("The early shift brings the cake.")
    else:
        print("Both bring cake.")

    # a little picture of the day
    print()
    for i in range(len(hours)):
        bar = ""
        for k in range(levels[i] // 20):
            bar = bar + "~"
        mark = " "
        if levels[i] > 300:
            mark = "!"
        print(hours[i], mark, bar)
    print()

    # how much water goes through, a very rough guess
    litres = 0
    for i in range(len(openings)):
        litres = litres + openings[i] * 3 * 3600 // 100
    print("About", litres, "litres go through the gate.")
    barrels = litres // 200
    rest = litres % 200
    print("That is", barrels, "barrels and", rest, "litres.")

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
