# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

water = 340

print("Letting the water out at the", STATION)
print("we start at", water, "cm")

print("turn the wheel")
print("wait one minute")
water = water - 20
print("now at", water, "cm")
print("turn the wheel")
print("wait one minute")
water = water - 20
print("now at", water, "cm")
print("turn the wheel")
print("wait one minute")
water = water - 20
print("now at", water, "cm")
print("turn the wheel")
print("wait one minute")
water = water - 20
print("now at", water, "cm")
print("turn the wheel")
print("wait one minute")
water = water - 20
print("now at", water, "cm")
print("turn the wheel")
print("wait one minute")
water = water - 20
print("now at", water, "cm")

if water < 250:
    print("low enough, lock the wheel")
else:
    print("the tide is coming, stop here")
