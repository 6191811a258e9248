;; The innermost loops of the scan, four or sixteen people at a time. What they read and write is laid into this memory
;; block by block by kernel.ts, which tells where; `npm run kernel` writes them into kernel-bytes.ts.
;; Bounds are met on both ends. Numbers of people are multiples of 32; loops over gifts may go on for up to three more
;; than there are, for which there is room behind each stretch.
(module
  (memory (export "memory") 1)

  ;; Who has a whole number within the bounds: a bit for each, 32 to a word.
  (func (export "whole") (param $values i32) (param $words i32) (param $people i32) (param $low i32) (param $high i32)
    (local $value v128) (local $lows v128) (local $highs v128) (local $end i32) (local $word i32) (local $bit i32)
    (local.set $lows (i32x4.splat (local.get $low)))
    (local.set $highs (i32x4.splat (local.get $high)))
    (local.set $end (i32.add (local.get $values) (i32.shl (local.get $people) (i32.const 2))))
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $values) (local.get $end)))
        (local.set $word (i32.const 0))
        (local.set $bit (i32.const 0))
        (loop $four
          (local.set $value (v128.load (local.get $values)))
          (local.set $word
            (i32.or
              (local.get $word)
              (i32.shl
                (i32x4.bitmask
                  (v128.and
                    (i32x4.ge_s (local.get $value) (local.get $lows))
                    (i32x4.le_s (local.get $value) (local.get $highs))))
                (local.get $bit))))
          (local.set $values (i32.add (local.get $values) (i32.const 16)))
          (local.set $bit (i32.add (local.get $bit) (i32.const 4)))
          (br_if $four (i32.lt_u (local.get $bit) (i32.const 32))))
        (i32.store (local.get $words) (local.get $word))
        (local.set $words (i32.add (local.get $words) (i32.const 4)))
        (br $next))))

  ;; The same of bytes, which are codes from 0 to 255.
  (func (export "bytes") (param $values i32) (param $words i32) (param $people i32) (param $low i32) (param $high i32)
    (local $value v128) (local $lows v128) (local $highs v128) (local $end i32)
    (local.set $lows (i8x16.splat (local.get $low)))
    (local.set $highs (i8x16.splat (local.get $high)))
    (local.set $end (i32.add (local.get $values) (local.get $people)))
    (block $done
      (loop $sixteen
        (br_if $done (i32.ge_u (local.get $values) (local.get $end)))
        (local.set $value (v128.load (local.get $values)))
        (i32.store16
          (local.get $words)
          (i8x16.bitmask
            (v128.and
              (i8x16.ge_u (local.get $value) (local.get $lows))
              (i8x16.le_u (local.get $value) (local.get $highs)))))
        (local.set $values (i32.add (local.get $values) (i32.const 16)))
        (local.set $words (i32.add (local.get $words) (i32.const 2)))
        (br $sixteen))))

  ;; What the gifts before each come to, of those with a day within the bounds; one more than there are gifts.
  ;; Sums wrap around, since what counts is the difference of two.
  (func (export "running") (param $days i32) (param $amounts i32) (param $totals i32) (param $gifts i32) (param $low i32) (param $high i32)
    (local $sum v128) (local $amount v128) (local $day v128) (local $lows v128) (local $highs v128) (local $end i32)
    (local.set $lows (i32x4.splat (local.get $low)))
    (local.set $highs (i32x4.splat (local.get $high)))
    (local.set $end (i32.add (local.get $days) (i32.shl (local.get $gifts) (i32.const 2))))
    (i32.store (local.get $totals) (i32.const 0))
    (block $done
      (loop $four
        (br_if $done (i32.ge_u (local.get $days) (local.get $end)))
        (local.set $day (v128.load (local.get $days)))
        ;; a b c d: the amounts in the window, else nothing
        (local.set $amount
          (v128.and
            (v128.load (local.get $amounts))
            (v128.and
              (i32x4.ge_s (local.get $day) (local.get $lows))
              (i32x4.le_s (local.get $day) (local.get $highs)))))
        ;; a, a+b, b+c, c+d
        (local.set $amount
          (i32x4.add
            (local.get $amount)
            (i8x16.shuffle 0 0 0 0 16 17 18 19 20 21 22 23 24 25 26 27 (v128.const i32x4 0 0 0 0) (local.get $amount))))
        ;; a, a+b, a+b+c, a+b+c+d
        (local.set $amount
          (i32x4.add
            (local.get $amount)
            (i8x16.shuffle 0 0 0 0 0 0 0 0 16 17 18 19 20 21 22 23 (v128.const i32x4 0 0 0 0) (local.get $amount))))
        (local.set $amount (i32x4.add (local.get $amount) (local.get $sum)))
        (v128.store offset=4 (local.get $totals) (local.get $amount))
        ;; The last of them is what the next four begin with.
        (local.set $sum
          (i8x16.shuffle 12 13 14 15 12 13 14 15 12 13 14 15 12 13 14 15 (local.get $amount) (local.get $amount)))
        (local.set $days (i32.add (local.get $days) (i32.const 16)))
        (local.set $amounts (i32.add (local.get $amounts) (i32.const 16)))
        (local.set $totals (i32.add (local.get $totals) (i32.const 16)))
        (br $four))))

  ;; Whose share of the totals lies within the bounds: the total where the next one's gifts start, less that at one's own.
  (func (export "shares") (param $starts i32) (param $totals i32) (param $words i32) (param $people i32) (param $least i32) (param $most i32)
    (local $before v128) (local $after v128) (local $share v128) (local $leasts v128) (local $mosts v128)
    (local $end i32) (local $word i32) (local $bit i32)
    (local.set $leasts (i32x4.splat (local.get $least)))
    (local.set $mosts (i32x4.splat (local.get $most)))
    (local.set $end (i32.add (local.get $starts) (i32.shl (local.get $people) (i32.const 2))))
    (local.set $before
      (i32x4.splat (i32.load (i32.add (local.get $totals) (i32.shl (i32.load (local.get $starts)) (i32.const 2))))))
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $starts) (local.get $end)))
        (local.set $word (i32.const 0))
        (local.set $bit (i32.const 0))
        (loop $four
          (local.set $after
            (v128.load32_zero
              (i32.add (local.get $totals) (i32.shl (i32.load offset=4 (local.get $starts)) (i32.const 2)))))
          (local.set $after
            (v128.load32_lane 1
              (i32.add (local.get $totals) (i32.shl (i32.load offset=8 (local.get $starts)) (i32.const 2)))
              (local.get $after)))
          (local.set $after
            (v128.load32_lane 2
              (i32.add (local.get $totals) (i32.shl (i32.load offset=12 (local.get $starts)) (i32.const 2)))
              (local.get $after)))
          (local.set $after
            (v128.load32_lane 3
              (i32.add (local.get $totals) (i32.shl (i32.load offset=16 (local.get $starts)) (i32.const 2)))
              (local.get $after)))
          (local.set $share
            (i32x4.sub
              (local.get $after)
              (i8x16.shuffle 12 13 14 15 16 17 18 19 20 21 22 23 24 25 26 27 (local.get $before) (local.get $after))))
          (local.set $before (local.get $after))
          (local.set $word
            (i32.or
              (local.get $word)
              (i32.shl
                (i32x4.bitmask
                  (v128.and
                    (i32x4.ge_s (local.get $share) (local.get $leasts))
                    (i32x4.le_s (local.get $share) (local.get $mosts))))
                (local.get $bit))))
          (local.set $starts (i32.add (local.get $starts) (i32.const 16)))
          (local.set $bit (i32.add (local.get $bit) (i32.const 4)))
          (br_if $four (i32.lt_u (local.get $bit) (i32.const 32))))
        (i32.store (local.get $words) (local.get $word))
        (local.set $words (i32.add (local.get $words) (i32.const 4)))
        (br $next)))))
