// Seed labels in C++
#include <iostream>
#include <string>
using namespace std;

void border(int width)
{
    for (int i = 0; i < width; i++) {
        cout << "-";
    }
    cout << endl;
}

int main()
{
    string first = "sea kale";
    border(12);
    cout << "label: " << first << endl;
    cout << "dry and dark" << endl;
    border(12);

    string second = "thrift";
    border(12);
    cout << "label: " << second << endl;
    cout << "dry and dark" << endl;
    border(12);

    string third = "sea aster";
    border(12);
    cout << "label: " << third << endl;
    cout << "dry and dark" << endl;
    border(12);
    return 0;
}
