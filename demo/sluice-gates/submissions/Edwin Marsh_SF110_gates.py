# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

spring = [310, 305, 322, 298]
neap = [251, 240, 262]
calm = [199, 180, 205, 190, 201]


def print_heading():
    print(STATION)
    print("levels at the sluice gates by kind of tide")


def main():
    print_heading()

    print("Spring tide")
    low = min(spring)
    high = max(spring)
    mean = sum(spring) / len(spring)
    print("   from", low, "to", high, "cm")
    print("   mean", round(mean, 1), "cm")
    if high > 315:
        print("   the harbour wall was wet")

    print("Neap tide")
    low = min(neap)
    high = max(neap)
    mean = sum(neap) / len(neap)
    print("   from", low, "to", high, "cm")
    print("   mean", round(mean, 1), "cm")
    span = high - low
    print("   a span of", span, "cm is normal")

    print("Calm days")
    low = min(calm)
    high = max(calm)
    mean = sum(calm) / len(calm)
    print("   from", low, "to", high, "cm")
    print("   mean", round(mean, 1), "cm")

    print("all gates were looked at")


main()
