;; Sums of products of rows of numbers with a run of samples, for every step-th place of the run, and the steps of a tone's
;; phase between two such filters. Sums are in single precision, four lanes at a time; four results are summed side by side:
;; none waits for another, and a tap is fetched once for all of them. Each is summed the same way wherever it stands.
(module
  (memory (export "memory") 16)

  (func $sum (param $v v128) (result f32)
    (f32.add
      (f32.add (f32x4.extract_lane 0 (local.get $v)) (f32x4.extract_lane 2 (local.get $v)))
      (f32.add (f32x4.extract_lane 1 (local.get $v)) (f32x4.extract_lane 3 (local.get $v)))))

  ;; $a and $b are rows of $bytes bytes, a multiple of 16; $x advances by $step bytes a result; $count results go to
  ;; $re (by $a) and $im (by $b).
  (func (export "both")
    (param $x i32) (param $a i32) (param $b i32) (param $bytes i32) (param $step i32) (param $count i32)
    (param $re i32) (param $im i32)
    (local $j i32) (local $p i32) (local $t v128) (local $ta v128) (local $tb v128)
    (local $a0 v128) (local $a1 v128) (local $a2 v128) (local $a3 v128)
    (local $b0 v128) (local $b1 v128) (local $b2 v128) (local $b3 v128)
    (block $few_left
      (loop $results
        (br_if $few_left (i32.lt_s (local.get $count) (i32.const 4)))
        (local.set $a0 (v128.const f32x4 0 0 0 0))
        (local.set $b0 (v128.const f32x4 0 0 0 0))
        (local.set $a1 (v128.const f32x4 0 0 0 0))
        (local.set $b1 (v128.const f32x4 0 0 0 0))
        (local.set $a2 (v128.const f32x4 0 0 0 0))
        (local.set $b2 (v128.const f32x4 0 0 0 0))
        (local.set $a3 (v128.const f32x4 0 0 0 0))
        (local.set $b3 (v128.const f32x4 0 0 0 0))
        (local.set $j (i32.const 0))
        (loop $taps
          (local.set $ta (v128.load (i32.add (local.get $a) (local.get $j))))
          (local.set $tb (v128.load (i32.add (local.get $b) (local.get $j))))
          (local.set $p (i32.add (local.get $x) (local.get $j)))
          (local.set $t (v128.load (local.get $p)))
          (local.set $a0 (f32x4.add (local.get $a0) (f32x4.mul (local.get $t) (local.get $ta))))
          (local.set $b0 (f32x4.add (local.get $b0) (f32x4.mul (local.get $t) (local.get $tb))))
          (local.set $p (i32.add (local.get $p) (local.get $step)))
          (local.set $t (v128.load (local.get $p)))
          (local.set $a1 (f32x4.add (local.get $a1) (f32x4.mul (local.get $t) (local.get $ta))))
          (local.set $b1 (f32x4.add (local.get $b1) (f32x4.mul (local.get $t) (local.get $tb))))
          (local.set $p (i32.add (local.get $p) (local.get $step)))
          (local.set $t (v128.load (local.get $p)))
          (local.set $a2 (f32x4.add (local.get $a2) (f32x4.mul (local.get $t) (local.get $ta))))
          (local.set $b2 (f32x4.add (local.get $b2) (f32x4.mul (local.get $t) (local.get $tb))))
          (local.set $p (i32.add (local.get $p) (local.get $step)))
          (local.set $t (v128.load (local.get $p)))
          (local.set $a3 (f32x4.add (local.get $a3) (f32x4.mul (local.get $t) (local.get $ta))))
          (local.set $b3 (f32x4.add (local.get $b3) (f32x4.mul (local.get $t) (local.get $tb))))
          (local.set $j (i32.add (local.get $j) (i32.const 16)))
          (br_if $taps (i32.lt_u (local.get $j) (local.get $bytes))))
        ;; the lanes of each added up as $sum does
        (local.set $a0 (f32x4.add
            (i8x16.shuffle 0 1 2 3 4 5 6 7 16 17 18 19 20 21 22 23 (local.get $a0) (local.get $a1))
            (i8x16.shuffle 8 9 10 11 12 13 14 15 24 25 26 27 28 29 30 31 (local.get $a0) (local.get $a1))))
        (local.set $a2 (f32x4.add
            (i8x16.shuffle 0 1 2 3 4 5 6 7 16 17 18 19 20 21 22 23 (local.get $a2) (local.get $a3))
            (i8x16.shuffle 8 9 10 11 12 13 14 15 24 25 26 27 28 29 30 31 (local.get $a2) (local.get $a3))))
        (v128.store (local.get $re)
          (f32x4.add
            (i8x16.shuffle 0 1 2 3 8 9 10 11 16 17 18 19 24 25 26 27 (local.get $a0) (local.get $a2))
            (i8x16.shuffle 4 5 6 7 12 13 14 15 20 21 22 23 28 29 30 31 (local.get $a0) (local.get $a2))))
        (local.set $b0 (f32x4.add
            (i8x16.shuffle 0 1 2 3 4 5 6 7 16 17 18 19 20 21 22 23 (local.get $b0) (local.get $b1))
            (i8x16.shuffle 8 9 10 11 12 13 14 15 24 25 26 27 28 29 30 31 (local.get $b0) (local.get $b1))))
        (local.set $b2 (f32x4.add
            (i8x16.shuffle 0 1 2 3 4 5 6 7 16 17 18 19 20 21 22 23 (local.get $b2) (local.get $b3))
            (i8x16.shuffle 8 9 10 11 12 13 14 15 24 25 26 27 28 29 30 31 (local.get $b2) (local.get $b3))))
        (v128.store (local.get $im)
          (f32x4.add
            (i8x16.shuffle 0 1 2 3 8 9 10 11 16 17 18 19 24 25 26 27 (local.get $b0) (local.get $b2))
            (i8x16.shuffle 4 5 6 7 12 13 14 15 20 21 22 23 28 29 30 31 (local.get $b0) (local.get $b2))))
        (local.set $re (i32.add (local.get $re) (i32.const 16)))
        (local.set $im (i32.add (local.get $im) (i32.const 16)))
        (local.set $x (i32.add (local.get $x) (i32.shl (local.get $step) (i32.const 2))))
        (local.set $count (i32.sub (local.get $count) (i32.const 4)))
        (br $results)))
    (call $one (local.get $x) (local.get $a) (local.get $bytes) (local.get $step) (local.get $count) (local.get $re))
    (call $one (local.get $x) (local.get $b) (local.get $bytes) (local.get $step) (local.get $count) (local.get $im)))

  ;; The same with one row of numbers.
  (func $one (export "one")
    (param $x i32) (param $a i32) (param $bytes i32) (param $step i32) (param $count i32) (param $re i32)
    (local $j i32) (local $p i32) (local $t v128)
    (local $s0 v128) (local $s1 v128) (local $s2 v128) (local $s3 v128)
    (block $few_left
      (loop $results
        (br_if $few_left (i32.lt_s (local.get $count) (i32.const 4)))
        (local.set $s0 (v128.const f32x4 0 0 0 0))
        (local.set $s1 (v128.const f32x4 0 0 0 0))
        (local.set $s2 (v128.const f32x4 0 0 0 0))
        (local.set $s3 (v128.const f32x4 0 0 0 0))
        (local.set $j (i32.const 0))
        (loop $taps
          (local.set $t (v128.load (i32.add (local.get $a) (local.get $j))))
          (local.set $p (i32.add (local.get $x) (local.get $j)))
          (local.set $s0 (f32x4.add (local.get $s0) (f32x4.mul (v128.load (local.get $p)) (local.get $t))))
          (local.set $p (i32.add (local.get $p) (local.get $step)))
          (local.set $s1 (f32x4.add (local.get $s1) (f32x4.mul (v128.load (local.get $p)) (local.get $t))))
          (local.set $p (i32.add (local.get $p) (local.get $step)))
          (local.set $s2 (f32x4.add (local.get $s2) (f32x4.mul (v128.load (local.get $p)) (local.get $t))))
          (local.set $p (i32.add (local.get $p) (local.get $step)))
          (local.set $s3 (f32x4.add (local.get $s3) (f32x4.mul (v128.load (local.get $p)) (local.get $t))))
          (local.set $j (i32.add (local.get $j) (i32.const 16)))
          (br_if $taps (i32.lt_u (local.get $j) (local.get $bytes))))
        ;; the lanes of each added up as $sum does
        (local.set $s0 (f32x4.add
          (i8x16.shuffle 0 1 2 3 4 5 6 7 16 17 18 19 20 21 22 23 (local.get $s0) (local.get $s1))
          (i8x16.shuffle 8 9 10 11 12 13 14 15 24 25 26 27 28 29 30 31 (local.get $s0) (local.get $s1))))
        (local.set $s2 (f32x4.add
          (i8x16.shuffle 0 1 2 3 4 5 6 7 16 17 18 19 20 21 22 23 (local.get $s2) (local.get $s3))
          (i8x16.shuffle 8 9 10 11 12 13 14 15 24 25 26 27 28 29 30 31 (local.get $s2) (local.get $s3))))
        (local.set $s0
          (f32x4.add
            (i8x16.shuffle 0 1 2 3 8 9 10 11 16 17 18 19 24 25 26 27 (local.get $s0) (local.get $s2))
            (i8x16.shuffle 4 5 6 7 12 13 14 15 20 21 22 23 28 29 30 31 (local.get $s0) (local.get $s2))))
        (v128.store (local.get $re) (local.get $s0))
        (local.set $re (i32.add (local.get $re) (i32.const 16)))
        (local.set $x (i32.add (local.get $x) (i32.shl (local.get $step) (i32.const 2))))
        (local.set $count (i32.sub (local.get $count) (i32.const 4)))
        (br $results)))
    (block $done
      (loop $results
        (br_if $done (i32.eqz (local.get $count)))
        (local.set $s0 (v128.const f32x4 0 0 0 0))
        (local.set $j (i32.const 0))
        (loop $taps
          (local.set $s0
            (f32x4.add (local.get $s0)
              (f32x4.mul
                (v128.load (i32.add (local.get $x) (local.get $j)))
                (v128.load (i32.add (local.get $a) (local.get $j))))))
          (local.set $j (i32.add (local.get $j) (i32.const 16)))
          (br_if $taps (i32.lt_u (local.get $j) (local.get $bytes))))
        (f32.store (local.get $re) (call $sum (local.get $s0)))
        (local.set $re (i32.add (local.get $re) (i32.const 4)))
        (local.set $x (i32.add (local.get $x) (local.get $step)))
        (local.set $count (i32.sub (local.get $count) (i32.const 1)))
        (br $results))))

  ;; The points at $re and $im, one more than $count: the angle from each to the next less a steady one, of which $cos and
  ;; $sin are given, times $scale, goes to $angle, and twice the next one's distance from 0 to $size. Single precision
  ;; outside, double inside; two at a time: there has to be room for one more. Where the angle is half a right angle or wider
  ;; that is no number, and the result is not 0.
  (func (export "steps")
    (param $re i32) (param $im i32) (param $count i32) (param $cos f64) (param $sin f64) (param $scale f64)
    (param $angle i32) (param $size i32) (result i32)
    (local $c v128) (local $s0 v128) (local $ones v128) (local $far v128) (local $any v128)
    (local $r v128) (local $i v128) (local $x v128) (local $y v128)
    (local $t v128) (local $s v128) (local $p v128) (local $times v128)
    (local.set $c (f64x2.splat (local.get $cos)))
    (local.set $s0 (f64x2.splat (local.get $sin)))
    (local.set $ones (v128.const f64x2 1 1))
    (block $done
      (loop $two
        (br_if $done (i32.le_s (local.get $count) (i32.const 0)))
        (local.set $x (f64x2.promote_low_f32x4 (v128.load64_zero (local.get $re))))
        (local.set $y (f64x2.promote_low_f32x4 (v128.load64_zero (local.get $im))))
        (local.set $r (f64x2.promote_low_f32x4 (v128.load64_zero offset=4 (local.get $re))))
        (local.set $i (f64x2.promote_low_f32x4 (v128.load64_zero offset=4 (local.get $im))))
        (v128.store64_lane 0 (local.get $size)
          (f32x4.demote_f64x2_zero
            (f64x2.mul (v128.const f64x2 2 2)
              (f64x2.sqrt
                (f64x2.add
                  (f64x2.mul (local.get $r) (local.get $r))
                  (f64x2.mul (local.get $i) (local.get $i)))))))
        ;; the next times the one before, mirrored at the axis
        (local.set $t
          (f64x2.add (f64x2.mul (local.get $r) (local.get $x)) (f64x2.mul (local.get $i) (local.get $y))))
        (local.set $p
          (f64x2.sub (f64x2.mul (local.get $i) (local.get $x)) (f64x2.mul (local.get $r) (local.get $y))))
        ;; turned back by the steady angle
        (local.set $x
          (f64x2.add (f64x2.mul (local.get $t) (local.get $c)) (f64x2.mul (local.get $p) (local.get $s0))))
        (local.set $y
          (f64x2.sub (f64x2.mul (local.get $p) (local.get $c)) (f64x2.mul (local.get $t) (local.get $s0))))
        (local.set $far (v128.not (f64x2.lt (f64x2.abs (local.get $y)) (local.get $x))))
        ;; the one that is taken along says nothing
        (local.set $any
          (v128.or (local.get $any)
            (v128.and (local.get $far)
              (select (v128.const i64x2 -1 0) (v128.const i64x2 -1 -1)
                (i32.eq (local.get $count) (i32.const 1))))))
        (local.set $t (f64x2.div (local.get $y) (local.get $x)))
        (local.set $times (f64x2.splat (local.get $scale)))
        ;; a wide angle is halved twice: the tangent of the half is t / (1 + sqrt(1 + t t))
        (if (v128.any_true (f64x2.ge (f64x2.abs (local.get $t)) (v128.const f64x2 0.2 0.2)))
          (then
            (local.set $t
              (f64x2.div (local.get $t)
                (f64x2.add (local.get $ones)
                  (f64x2.sqrt (f64x2.add (local.get $ones) (f64x2.mul (local.get $t) (local.get $t)))))))
            (local.set $t
              (f64x2.div (local.get $t)
                (f64x2.add (local.get $ones)
                  (f64x2.sqrt (f64x2.add (local.get $ones) (f64x2.mul (local.get $t) (local.get $t)))))))
            (local.set $times (f64x2.mul (local.get $times) (v128.const f64x2 4 4)))))
        ;; the series of the arctangent
        (local.set $s (f64x2.mul (local.get $t) (local.get $t)))
        (local.set $p (v128.const f64x2 0.058823529411764705 0.058823529411764705))
        (local.set $p (f64x2.sub (v128.const f64x2 0.06666666666666667 0.06666666666666667) (f64x2.mul (local.get $s) (local.get $p))))
        (local.set $p (f64x2.sub (v128.const f64x2 0.07692307692307693 0.07692307692307693) (f64x2.mul (local.get $s) (local.get $p))))
        (local.set $p (f64x2.sub (v128.const f64x2 0.09090909090909091 0.09090909090909091) (f64x2.mul (local.get $s) (local.get $p))))
        (local.set $p (f64x2.sub (v128.const f64x2 0.1111111111111111 0.1111111111111111) (f64x2.mul (local.get $s) (local.get $p))))
        (local.set $p (f64x2.sub (v128.const f64x2 0.14285714285714285 0.14285714285714285) (f64x2.mul (local.get $s) (local.get $p))))
        (local.set $p (f64x2.sub (v128.const f64x2 0.2 0.2) (f64x2.mul (local.get $s) (local.get $p))))
        (local.set $p (f64x2.sub (v128.const f64x2 0.3333333333333333 0.3333333333333333) (f64x2.mul (local.get $s) (local.get $p))))
        (local.set $p (f64x2.sub (v128.const f64x2 1 1) (f64x2.mul (local.get $s) (local.get $p))))
        (local.set $p (f64x2.mul (local.get $times) (f64x2.mul (local.get $t) (local.get $p))))
        (v128.store64_lane 0 (local.get $angle)
          (f32x4.demote_f64x2_zero (v128.or (local.get $p) (local.get $far))))
        (local.set $re (i32.add (local.get $re) (i32.const 8)))
        (local.set $im (i32.add (local.get $im) (i32.const 8)))
        (local.set $angle (i32.add (local.get $angle) (i32.const 8)))
        (local.set $size (i32.add (local.get $size) (i32.const 8)))
        (local.set $count (i32.sub (local.get $count) (i32.const 2)))
        (br $two)))
    (v128.any_true (local.get $any))))
