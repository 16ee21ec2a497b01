// Seed labels in Swift
struct Packet {
    let name: String
    let grams: Int

    var pieces: Int {
        return grams * 40
    }
}

func printPacket(_ packet: Packet) {
    print("+----------------+")
    print("| \(packet.name)")
    print("| \(packet.grams) g, about \(packet.pieces) seeds")
    print("+----------------+")
}

printPacket(Packet(name: "sea kale", grams: 20))
printPacket(Packet(name: "thrift", grams: 5))
print("bag 1 is sealed")
print("  shelf 11")
print("bag 2 is sealed")
print("  shelf 12")
print("bag 3 is sealed")
print("  shelf 13")
print("bag 4 is sealed")
print("  shelf 14")
