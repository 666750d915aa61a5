;; One pass of a Fourier transform (Stockham, radix 4 or 2, decimation in frequency). A complex number is 16 bytes: re, im.
(module
  (memory (export "memory") 1)

  ;; $m groups of $s quadruples, the four of one $m times $s apart in $x, $s apart in $y; the roots of group p stand at
  ;; $roots + p, 2p and 3p times $step bytes. $sign goes over what is multiplied by an imaginary part: forwards the roots
  ;; turn one way, back the other.
  (func (export "four")
    (param $x i32) (param $y i32) (param $roots i32) (param $m i32) (param $s i32) (param $step i32) (param $back i32)
    (local $p i32) (local $end i32) (local $row i32) (local $far i32) (local $far2 i32) (local $far3 i32)
    (local $row2 i32) (local $row3 i32) (local $w1 i32) (local $w2 i32) (local $w3 i32)
    (local $sign v128)
    (local $a v128) (local $b v128) (local $c v128) (local $d v128)
    (local $ac v128) (local $bd v128)
    (local $r1 v128) (local $i1 v128) (local $r2 v128) (local $i2 v128) (local $r3 v128) (local $i3 v128)
    (local.set $sign (v128.const i64x2 0x8000000000000000 0))
    (if (local.get $back) (then (local.set $sign (v128.const i64x2 0 0x8000000000000000))))
    (local.set $row (i32.shl (local.get $s) (i32.const 4)))
    (local.set $row2 (i32.shl (local.get $row) (i32.const 1)))
    (local.set $row3 (i32.add (local.get $row2) (local.get $row)))
    (local.set $far (i32.mul (local.get $row) (local.get $m)))
    (local.set $far2 (i32.shl (local.get $far) (i32.const 1)))
    (local.set $far3 (i32.add (local.get $far2) (local.get $far)))
    (local.set $w1 (local.get $roots))
    (local.set $w2 (local.get $roots))
    (local.set $w3 (local.get $roots))
    (local.set $p (i32.const 0))
    (loop $groups
      (local.set $r1 (v128.load64_splat (local.get $w1)))
      (local.set $i1 (v128.xor (v128.load64_splat offset=8 (local.get $w1)) (local.get $sign)))
      (local.set $r2 (v128.load64_splat (local.get $w2)))
      (local.set $i2 (v128.xor (v128.load64_splat offset=8 (local.get $w2)) (local.get $sign)))
      (local.set $r3 (v128.load64_splat (local.get $w3)))
      (local.set $i3 (v128.xor (v128.load64_splat offset=8 (local.get $w3)) (local.get $sign)))
      (local.set $end (i32.add (local.get $x) (local.get $row)))
      (loop $one
        (local.set $a (v128.load (local.get $x)))
        (local.set $b (v128.load (i32.add (local.get $x) (local.get $far))))
        (local.set $c (v128.load (i32.add (local.get $x) (local.get $far2))))
        (local.set $d (v128.load (i32.add (local.get $x) (local.get $far3))))
        (local.set $ac (f64x2.add (local.get $a) (local.get $c)))
        (local.set $a (f64x2.sub (local.get $a) (local.get $c)))
        (local.set $bd (f64x2.add (local.get $b) (local.get $d)))
        (local.set $b (f64x2.sub (local.get $b) (local.get $d)))
        ;; times i forwards, times -i back
        (local.set $b
          (v128.xor
            (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $b) (local.get $b))
            (local.get $sign)))
        (v128.store (local.get $y) (f64x2.add (local.get $ac) (local.get $bd)))
        (local.set $ac (f64x2.sub (local.get $ac) (local.get $bd)))
        (local.set $c (f64x2.sub (local.get $a) (local.get $b)))
        (local.set $d (f64x2.add (local.get $a) (local.get $b)))
        (v128.store (i32.add (local.get $y) (local.get $row))
          (f64x2.add
            (f64x2.mul (local.get $c) (local.get $r1))
            (f64x2.mul
              (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $c) (local.get $c))
              (local.get $i1))))
        (v128.store (i32.add (local.get $y) (local.get $row2))
          (f64x2.add
            (f64x2.mul (local.get $ac) (local.get $r2))
            (f64x2.mul
              (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $ac) (local.get $ac))
              (local.get $i2))))
        (v128.store (i32.add (local.get $y) (local.get $row3))
          (f64x2.add
            (f64x2.mul (local.get $d) (local.get $r3))
            (f64x2.mul
              (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $d) (local.get $d))
              (local.get $i3))))
        (local.set $y (i32.add (local.get $y) (i32.const 16)))
        (local.set $x (i32.add (local.get $x) (i32.const 16)))
        (br_if $one (i32.lt_u (local.get $x) (local.get $end))))
      (local.set $y (i32.add (local.get $y) (local.get $row3)))
      (local.set $w1 (i32.add (local.get $w1) (local.get $step)))
      (local.set $w2 (i32.add (local.get $w2) (i32.shl (local.get $step) (i32.const 1))))
      (local.set $w3 (i32.add (local.get $w3) (i32.mul (local.get $step) (i32.const 3))))
      (local.set $p (i32.add (local.get $p) (i32.const 1)))
      (br_if $groups (i32.lt_u (local.get $p) (local.get $m)))))

  ;; The last pass where four do not divide what is left: $s pairs, $s apart in both.
  (func (export "two") (param $x i32) (param $y i32) (param $s i32)
    (local $end i32) (local $row i32) (local $a v128) (local $b v128)
    (local.set $row (i32.shl (local.get $s) (i32.const 4)))
    (local.set $end (i32.add (local.get $x) (local.get $row)))
    (loop $one
      (local.set $a (v128.load (local.get $x)))
      (local.set $b (v128.load (i32.add (local.get $x) (local.get $row))))
      (v128.store (local.get $y) (f64x2.add (local.get $a) (local.get $b)))
      (v128.store (i32.add (local.get $y) (local.get $row)) (f64x2.sub (local.get $a) (local.get $b)))
      (local.set $y (i32.add (local.get $y) (i32.const 16)))
      (local.set $x (i32.add (local.get $x) (i32.const 16)))
      (br_if $one (i32.lt_u (local.get $x) (local.get $end)))))

  ;; $count values at $x, an even number, times those at $window, in place.
  (func (export "weigh") (param $x i32) (param $window i32) (param $count i32) (local $end i32)
    (local.set $end (i32.add (local.get $x) (i32.shl (local.get $count) (i32.const 3))))
    (loop $pairs
      (v128.store (local.get $x) (f64x2.mul (v128.load (local.get $x)) (v128.load (local.get $window))))
      (local.set $x (i32.add (local.get $x) (i32.const 16)))
      (local.set $window (i32.add (local.get $window) (i32.const 16)))
      (br_if $pairs (i32.lt_u (local.get $x) (local.get $end)))))

  ;; The power of $count bins, an even number, and of one more goes to $power; every second one changes its sign.
  (func (export "power") (param $bins i32) (param $count i32) (param $power i32)
    (local $end i32) (local $a v128) (local $b v128)
    (local.set $end (i32.add (local.get $bins) (i32.shl (local.get $count) (i32.const 4))))
    (loop $pairs
      (local.set $a (v128.load (local.get $bins)))
      (local.set $b (v128.load offset=16 (local.get $bins)))
      (v128.store offset=16 (local.get $bins) (f64x2.neg (local.get $b)))
      (local.set $a (f64x2.mul (local.get $a) (local.get $a)))
      (local.set $b (f64x2.mul (local.get $b) (local.get $b)))
      (v128.store (local.get $power)
        (f64x2.add
          (i8x16.shuffle 0 1 2 3 4 5 6 7 16 17 18 19 20 21 22 23 (local.get $a) (local.get $b))
          (i8x16.shuffle 8 9 10 11 12 13 14 15 24 25 26 27 28 29 30 31 (local.get $a) (local.get $b))))
      (local.set $bins (i32.add (local.get $bins) (i32.const 32)))
      (local.set $power (i32.add (local.get $power) (i32.const 16)))
      (br_if $pairs (i32.lt_u (local.get $bins) (local.get $end))))
    (local.set $a (v128.load (local.get $bins)))
    (local.set $a (f64x2.mul (local.get $a) (local.get $a)))
    (f64.store (local.get $power)
      (f64.add (f64x2.extract_lane 0 (local.get $a)) (f64x2.extract_lane 1 (local.get $a)))))

  ;; Two real signals of $count values, an even number, made into one complex one: at $x, of those at $first and $second.
  (func (export "together") (param $first i32) (param $second i32) (param $count i32) (param $x i32)
    (local $end i32) (local $a v128) (local $b v128)
    (local.set $end (i32.add (local.get $first) (i32.shl (local.get $count) (i32.const 3))))
    (loop $pairs
      (local.set $a (v128.load (local.get $first)))
      (local.set $b (v128.load (local.get $second)))
      (v128.store (local.get $x)
        (i8x16.shuffle 0 1 2 3 4 5 6 7 16 17 18 19 20 21 22 23 (local.get $a) (local.get $b)))
      (v128.store offset=16 (local.get $x)
        (i8x16.shuffle 8 9 10 11 12 13 14 15 24 25 26 27 28 29 30 31 (local.get $a) (local.get $b)))
      (local.set $first (i32.add (local.get $first) (i32.const 16)))
      (local.set $second (i32.add (local.get $second) (i32.const 16)))
      (local.set $x (i32.add (local.get $x) (i32.const 32)))
      (br_if $pairs (i32.lt_u (local.get $first) (local.get $end)))))

  ;; A transform of two real signals, one in each part of a complex one, taken apart: bins 0 to half of $size go to $left and
  ;; $right, $size complex numbers stand at $x.
  (func (export "apart") (param $x i32) (param $size i32) (param $left i32) (param $right i32)
    (local $k i32) (local $m i32) (local $end i32) (local $a v128) (local $b v128) (local $half v128)
    (local.set $half (v128.const f64x2 0.5 0.5))
    (local.set $end (i32.shl (local.get $size) (i32.const 3)))
    (loop $bins
      ;; bin 0 is its own mirror
      (local.set $m
        (i32.and
          (i32.sub (local.get $size) (i32.shr_u (local.get $k) (i32.const 4)))
          (i32.sub (local.get $size) (i32.const 1))))
      (local.set $a (v128.load (i32.add (local.get $x) (local.get $k))))
      (local.set $b
        (v128.xor (v128.load (i32.add (local.get $x) (i32.shl (local.get $m) (i32.const 4))))
          (v128.const i64x2 0 0x8000000000000000)))
      (v128.store (i32.add (local.get $left) (local.get $k))
        (f64x2.mul (local.get $half) (f64x2.add (local.get $a) (local.get $b))))
      (local.set $a (f64x2.sub (local.get $a) (local.get $b)))
      (v128.store (i32.add (local.get $right) (local.get $k))
        (f64x2.mul (local.get $half)
          (v128.xor
            (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $a) (local.get $a))
            (v128.const i64x2 0 0x8000000000000000))))
      (local.set $k (i32.add (local.get $k) (i32.const 16)))
      (br_if $bins (i32.le_u (local.get $k) (local.get $end)))))

  ;; A transform of real values that ride two in a complex one, $half complex numbers at $x, made into bins 0 to $half of
  ;; theirs in place, but for the first and the last one; $roots are those of twice $half.
  (func (export "unfold") (param $x i32) (param $half i32) (param $roots i32)
    (local $low i32) (local $high i32) (local $a v128) (local $b v128) (local $even v128) (local $scale v128)
    (local.set $scale (v128.const f64x2 0.5 0.5))
    (local.set $low (i32.add (local.get $x) (i32.const 16)))
    (local.set $high (i32.add (local.get $x) (i32.shl (i32.sub (local.get $half) (i32.const 1)) (i32.const 4))))
    (local.set $roots (i32.add (local.get $roots) (i32.const 16)))
    (loop $pairs
      (local.set $a (v128.load (local.get $low)))
      (local.set $b (v128.xor (v128.load (local.get $high)) (v128.const i64x2 0 0x8000000000000000)))
      (local.set $even (f64x2.mul (local.get $scale) (f64x2.add (local.get $a) (local.get $b))))
      (local.set $a (f64x2.mul (local.get $scale) (f64x2.sub (local.get $a) (local.get $b))))
      ;; times -i
      (local.set $a
        (v128.xor
          (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $a) (local.get $a))
          (v128.const i64x2 0 0x8000000000000000)))
      (local.set $a
        (f64x2.add
          (f64x2.mul (local.get $a) (v128.load64_splat (local.get $roots)))
          (f64x2.mul
            (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $a) (local.get $a))
            (v128.xor (v128.load64_splat offset=8 (local.get $roots)) (v128.const i64x2 0x8000000000000000 0)))))
      (v128.store (local.get $low) (f64x2.add (local.get $even) (local.get $a)))
      (v128.store (local.get $high)
        (v128.xor (f64x2.sub (local.get $even) (local.get $a)) (v128.const i64x2 0 0x8000000000000000)))
      (local.set $roots (i32.add (local.get $roots) (i32.const 16)))
      (local.set $low (i32.add (local.get $low) (i32.const 16)))
      (local.set $high (i32.sub (local.get $high) (i32.const 16)))
      (br_if $pairs (i32.le_u (local.get $low) (local.get $high)))))

  ;; The way back of "unfold": bins 0 to $half of real values at $x, made into $half complex numbers in place that two of the
  ;; values ride in each, but for the first.
  (func (export "fold") (param $x i32) (param $half i32) (param $roots i32)
    (local $low i32) (local $high i32) (local $a v128) (local $b v128) (local $even v128) (local $scale v128)
    (local.set $scale (v128.const f64x2 0.5 0.5))
    (local.set $low (i32.add (local.get $x) (i32.const 16)))
    (local.set $high (i32.add (local.get $x) (i32.shl (i32.sub (local.get $half) (i32.const 1)) (i32.const 4))))
    (local.set $roots (i32.add (local.get $roots) (i32.const 16)))
    (loop $pairs
      (local.set $a (v128.load (local.get $low)))
      (local.set $b (v128.xor (v128.load (local.get $high)) (v128.const i64x2 0 0x8000000000000000)))
      (local.set $even (f64x2.mul (local.get $scale) (f64x2.add (local.get $a) (local.get $b))))
      (local.set $a (f64x2.mul (local.get $scale) (f64x2.sub (local.get $a) (local.get $b))))
      ;; times the conjugate of the root, and i
      (local.set $a
        (f64x2.add
          (f64x2.mul (local.get $a) (v128.load64_splat (local.get $roots)))
          (f64x2.mul
            (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $a) (local.get $a))
            (v128.xor (v128.load64_splat offset=8 (local.get $roots)) (v128.const i64x2 0 0x8000000000000000)))))
      (local.set $a
        (v128.xor
          (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $a) (local.get $a))
          (v128.const i64x2 0x8000000000000000 0)))
      (v128.store (local.get $low) (f64x2.add (local.get $even) (local.get $a)))
      (v128.store (local.get $high)
        (v128.xor (f64x2.sub (local.get $even) (local.get $a)) (v128.const i64x2 0 0x8000000000000000)))
      (local.set $roots (i32.add (local.get $roots) (i32.const 16)))
      (local.set $low (i32.add (local.get $low) (i32.const 16)))
      (local.set $high (i32.sub (local.get $high) (i32.const 16)))
      (br_if $pairs (i32.le_u (local.get $low) (local.get $high)))))

  ;; $count complex numbers at $x times those at $y, in place.
  (func (export "product") (param $x i32) (param $y i32) (param $count i32) (local $end i32) (local $a v128)
    (local.set $end (i32.add (local.get $x) (i32.shl (local.get $count) (i32.const 4))))
    (loop $all
      (local.set $a (v128.load (local.get $x)))
      (v128.store (local.get $x)
        (f64x2.add
          (f64x2.mul (local.get $a) (v128.load64_splat (local.get $y)))
          (f64x2.mul
            (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $a) (local.get $a))
            (v128.xor (v128.load64_splat offset=8 (local.get $y)) (v128.const i64x2 0x8000000000000000 0)))))
      (local.set $x (i32.add (local.get $x) (i32.const 16)))
      (local.set $y (i32.add (local.get $y) (i32.const 16)))
      (br_if $all (i32.lt_u (local.get $x) (local.get $end))))))
