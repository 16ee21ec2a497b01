# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

levels = [310, 270, 230, 190, 150, 322]


def print_heading():
    print(STATION.upper())
    print("Report of the six sluice gates")
    print()


def gate_opening(level, limit):
    opening = 0
    if level > limit:
        opening = level - limit
    if opening > 100:
        opening = 100
    return opening


def print_gate(number, level):
    bar = "#" * (level // 10)
    print("Gate", number, bar, level)


def mean_level(values):
    total = 0
    for value in values:
        total += value
    return total / len(values)


def count_open(values, limit):
    count = 0
    for value in values:
        if gate_opening(value, limit) > 0:
            count += 1
    return count


def main():
    print_heading()
    limit = 200
    for i in range(len(levels)):
        print_gate(i + 1, levels[i])
    print("Mean level", mean_level(levels))
    print(count_open(levels, limit), "gates are open")


main()
