# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

waterLevels = [290, 310, 205, 178]

def printHeading():
    print(STATION)
    print("How far are the gates open?")

def gateOpenning(level):
    if level >= 300:
        return 100
    if level >= 200:
        return 60
    return 10

def printGate(gateNumber, level):
    print("Gate " + str(gateNumber) + ": " + str(level) + " cm")
    print("   opens " + str(gateOpenning(level)) + " percent")

def meanLevel(allLevels):
    summe = 0
    for oneLevel in allLevels:
        summe = summe + oneLevel
    return summe / len(allLevels)

def main():
    printHeading()
    gateNumber = 1
    for level in waterLevels:
        printGate(gateNumber, level)
        gateNumber = gateNumber + 1
    print("Mean: " + str(meanLevel(waterLevels)))

main()
