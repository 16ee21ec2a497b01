;; Seed labels in Scheme

(define (say text)
  (display text)
  (newline))

(define (print-label name grams)
  (say "+----------------+")
  (say name)
  (say (* grams 40))
  (say "+----------------+"))

(print-label "sea kale" 20)
(print-label "thrift" 5)
(say "bag 1 is sealed")
(say "  shelf 11")
(say "bag 2 is sealed")
(say "  shelf 12")
(say "bag 3 is sealed")
(say "  shelf 13")
(say "bag 4 is sealed")
(say "  shelf 14")
