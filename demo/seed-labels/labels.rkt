#lang racket
;; Seed labels in Racket

(define (rule)
  (displayln "+----------------+"))

(define (print-kale grams)
  (rule)
  (displayln "| sea kale")
  (printf "| ~a seeds\n" (* grams 40))
  (rule))

(define (print-thrift grams)
  (rule)
  (displayln "| thrift")
  (printf "| ~a seeds\n" (* grams 40))
  (rule))

(print-kale 20)
(print-thrift 5)
(displayln "bag 1 is sealed")
(displayln "  shelf 11")
(displayln "bag 2 is sealed")
(displayln "  shelf 12")
(displayln "bag 3 is sealed")
(displayln "  shelf 13")
(displayln "bag 4 is sealed")
(displayln "  shelf 14")
