# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

def print_heading():
    print(STATION)

def main():
    print_heading()
    level = 310
    print("Gate at", level, "cm")
    if level > 250:
        print("   open it")
    else:
        print("   leave it shut")
    level = 244
    print("Gate at", level, "cm")
    if level > 250:
        print("   open it")
    else:
        print("   leave it shut")
    level = 287
    print("Gate at", level, "cm")
    if level > 250:
        print("   open it")
    else:
        print("   leave it shut")
    level = 198
    print("Gate at", level, "cm")
    if level > 250:
        print("   open it")
    else:
        print("   leave it shut")
    print("done")

main()
