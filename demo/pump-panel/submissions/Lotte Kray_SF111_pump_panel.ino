// the pumps by day and by night

int readLevel(int pin)
{
    return analogRead(pin);
}

void setPump(int pin, int state)
{
    digitalWrite(pin, state);
}

void day()
{
    Serial.println("day");
    int level = readLevel(A0);
    Serial.print("level ");
    Serial.println(level);
    if (level > 600)
    {
        setPump(4, HIGH);
        delay(3000);
        setPump(4, LOW);
    }
    digitalWrite(9, LOW);
}

void night()
{
    Serial.println("night");
    digitalWrite(9, HIGH);
    int level = readLevel(A0);
    Serial.print("level ");
    Serial.println(level);
    if (level > 600)
    {
        setPump(4, HIGH);
        delay(3000);
        setPump(4, LOW);
    }
}

void setup()
{
    Serial.begin(9600);
}

void loop()
{
    if (analogRead(A5) > 200)
    {
        day();
    }
    else
    {
        night();
    }
}
