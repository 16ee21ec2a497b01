/* Seed labels in C */
#include <stdio.h>

int main(void)
{
    printf("bag 1\n");
    printf("  weight %d g\n", 20);
    printf("bag 2\n");
    printf("  weight %d g\n", 25);
    printf("bag 3\n");
    printf("  weight %d g\n", 30);
    printf("bag 4\n");
    printf("  weight %d g\n", 35);
    return 0;
}
