# Saltmarsh field station: sluice gates
# The levels were measured this morning, in centimetres.
STATION = "Saltmarsh field station"

def print_heading():
	print('~' * 20)
	print(STATION)
	print('~' * 20)

def gate_opening(level):
	opening = 0
	while level > 200:
		opening = opening + 10
		level = level - 25
	return opening

def print_gate(name, level):
	print(name, level, 'cm', gate_opening(level), '%')

def main():
	print_heading()
	levels = []
	print('north gate')
	level = 320
	levels.append(level)
	print_gate('north', level)
	print('   checked by', 'Bastian')
	print('mill gate')
	level = 260
	levels.append(level)
	print_gate('mill', level)
	print('   checked by', 'Bastian')
	print('harbour gate')
	level = 215
	levels.append(level)
	print_gate('harbour', level)
	print('   checked by', 'Bastian')
	print('east gate')
	level = 190
	levels.append(level)
	print_gate('east', level)
	print('   checked by', 'Bastian')
	# mean of the water levels
	total = 0
	for one in levels:
		total = total + one
	mean = total / len(levels)
	print('mean', mean)

main()
