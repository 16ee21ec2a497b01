# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

def func1(x):
    if x > 300:
        return 100
    elif x > 250:
        return 75
    elif x > 200:
        return 50
    else:
        return 0

def mean_level(levels):
    return sum(levels) / len(levels)

# heading
print("+" + "-" * 28 + "+")
print("| " + STATION.ljust(27) + "|")
print("+" + "-" * 28 + "+")

print("North gate".ljust(15), "level", 312)
print("   opening", func1(312))
print("   flow   ", func1(312) * 3, "litres a second")
print("Mill gate".ljust(15), "level", 266)
print("   opening", func1(266))
print("   flow   ", func1(266) * 3, "litres a second")
print("Harbour gate".ljust(15), "level", 231)
print("   opening", func1(231))
print("   flow   ", func1(231) * 3, "litres a second")
print("East gate".ljust(15), "level", 187)
print("   opening", func1(187))
print("   flow   ", func1(187) * 3, "litres a second")
print("Ferry gate".ljust(15), "level", 205)
print("   opening", func1(205))
print("   flow   ", func1(205) * 3, "litres a second")

print("Mean level", mean_level([312, 266, 231, 187, 205]))
