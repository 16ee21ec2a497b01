Attribute VB_Name = "SeedLabels"
Option Explicit

' Seed labels in Visual Basic
Public Sub PrintAll()
    Range("A1").Value = "bag 1 is sealed"
    Range("B1").Value = 11
    Range("C1").Font.Bold = True
    Range("A2").Value = "bag 2 is sealed"
    Range("B2").Value = 12
    Range("C2").Font.Bold = True
    Range("A3").Value = "bag 3 is sealed"
    Range("B3").Value = 13
    Range("C3").Font.Bold = True
    Range("A4").Value = "bag 4 is sealed"
    Range("B4").Value = 14
    Range("C4").Font.Bold = True
    PrintKale
    PrintThrift
End Sub

Private Sub PrintKale()
    Debug.Print "+----------------+"
    Debug.Print "| sow in spring"
    Debug.Print "| " & Pieces(20) & " seeds"
    Debug.Print "+----------------+"
End Sub

Private Sub PrintThrift()
    Debug.Print "+----------------+"
    Debug.Print "| sow in spring"
    Debug.Print "| " & Pieces(5) & " seeds"
    Debug.Print "+----------------+"
End Sub

Private Function Pieces(ByVal grams As Integer) As Integer
    Pieces = grams * 40
End Function
