# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

print(STATION)
print("gates at high and low water")
print()

gate = 1
print("Gate number", gate)
hour = 6
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
hour = 12
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
hour = 18
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
print("   looked after by the morning shift")

gate = 2
print("Gate number", gate)
hour = 6
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
hour = 12
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
hour = 18
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
print("   looked after by the morning shift")

gate = 3
print("Gate number", gate)
hour = 6
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
hour = 12
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
hour = 18
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
print("   looked after by the morning shift")

gate = 4
print("Gate number", gate)
hour = 6
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
hour = 12
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
hour = 18
print("   ", hour, "h:", 300 - gate * 10 - hour * 5, "cm")
print("   looked after by the morning shift")

print()
print("end of the round")
