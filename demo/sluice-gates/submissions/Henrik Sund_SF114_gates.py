# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

gate1 = 305
gate2 = 280
gate3 = 241
gate4 = 199

print(STATION)
print("Gate report")
print("-----------")

if gate1 > 300:
    open1 = 100
elif gate1 > 200:
    open1 = 50
else:
    open1 = 0
print("Gate 1:", gate1, "cm, open", open1, "%")

if gate2 > 300:
    open2 = 100
elif gate2 > 200:
    open2 = 50
else:
    open2 = 0
print("Gate 2:", gate2, "cm, open", open2, "%")

if gate3 > 300:
    open3 = 100
elif gate3 > 200:
    open3 = 50
else:
    open3 = 0
print("Gate 3:", gate3, "cm, open", open3, "%")

if gate4 > 300:
    open4 = 100
elif gate4 > 200:
    open4 = 50
else:
    open4 = 0
print("Gate 4:", gate4, "cm, open", open4, "%")

mean = (gate1 + gate2 + gate3 + gate4) / 4
print("Mean level:", mean, "cm")
most = open1
if open2 > most:
    most = open2
if open3 > most:
    most = open3
if open4 > most:
    most = open4
print("The widest gate is open", most, "%")
