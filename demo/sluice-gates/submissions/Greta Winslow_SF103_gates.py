# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

print(STATION)
print("=======================")

print("Gate 1")
print("  water at", 310, "cm")
print("  please check the chain")
print("Gate 2")
print("  water at", 270, "cm")
print("  please check the chain")
print("Gate 3")
print("  water at", 230, "cm")
print("  please check the chain")
print("Gate 4")
print("  water at", 190, "cm")
print("  please check the chain")
print("Gate 5")
print("  water at", 150, "cm")
print("  please check the chain")

total = 310 + 270 + 230 + 190 + 150
print("mean level", total / 5, "cm")
if total / 5 > 200:
    print("open the sea gate")
else:
    print("keep the sea gate shut")
