# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"
