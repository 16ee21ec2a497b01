// Seed labels in C#
using System;

class Labels
{
    static void Main()
    {
        Console.WriteLine("bag 1");
        Console.WriteLine("  weight " + 20 + " g");
        Console.WriteLine("bag 2");
        Console.WriteLine("  weight " + 25 + " g");
        Console.WriteLine("bag 3");
        Console.WriteLine("  weight " + 30 + " g");
        Console.WriteLine("bag 4");
        Console.WriteLine("  weight " + 35 + " g");
    }
}
