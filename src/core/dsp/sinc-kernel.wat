;; Values between samples, by rows of 32 taps for 512 places between two of them, and what lies between two rows.
(module
  (memory (export "memory") 8)

  ;; Reads $samples at $count places (8 bytes each from $at on, counted in samples) into $out; rows of taps from $rows on.
  (func (export "between") (param $samples i32) (param $rows i32) (param $at i32) (param $count i32) (param $out i32)
    (local $end i32) (local $x i32) (local $low i32) (local $stop i32)
    (local $place f64) (local $whole f64) (local $position f64) (local $row f64) (local $lower f64)
    (local $x0 v128) (local $x1 v128) (local $a v128) (local $b v128) (local $c v128) (local $d v128)
    (local.set $end (i32.add (local.get $at) (i32.shl (local.get $count) (i32.const 3))))
    (block $done
      (loop $places
        (br_if $done (i32.ge_u (local.get $at) (local.get $end)))
        (local.set $place (f64.load (local.get $at)))
        (local.set $whole (f64.floor (local.get $place)))
        (local.set $position (f64.mul (f64.sub (local.get $place) (local.get $whole)) (f64.const 512)))
        (local.set $row (f64.floor (local.get $position)))
        (local.set $low
          (i32.add (local.get $rows) (i32.shl (i32.trunc_f64_s (local.get $row)) (i32.const 8))))
        (local.set $stop (i32.add (local.get $low) (i32.const 256)))
        ;; the first of 32 samples is the 15th before the place
        (local.set $x
          (i32.add (local.get $samples)
            (i32.shl (i32.sub (i32.trunc_f64_s (local.get $whole)) (i32.const 15)) (i32.const 3))))
        (local.set $a (v128.const f64x2 0 0))
        (local.set $b (v128.const f64x2 0 0))
        (local.set $c (v128.const f64x2 0 0))
        (local.set $d (v128.const f64x2 0 0))
        (loop $taps
          (local.set $x0 (v128.load (local.get $x)))
          (local.set $x1 (v128.load offset=16 (local.get $x)))
          (local.set $a (f64x2.add (local.get $a) (f64x2.mul (local.get $x0) (v128.load (local.get $low)))))
          (local.set $b (f64x2.add (local.get $b) (f64x2.mul (local.get $x1) (v128.load offset=16 (local.get $low)))))
          (local.set $c (f64x2.add (local.get $c) (f64x2.mul (local.get $x0) (v128.load offset=256 (local.get $low)))))
          (local.set $d (f64x2.add (local.get $d) (f64x2.mul (local.get $x1) (v128.load offset=272 (local.get $low)))))
          (local.set $x (i32.add (local.get $x) (i32.const 32)))
          (local.set $low (i32.add (local.get $low) (i32.const 32)))
          (br_if $taps (i32.lt_u (local.get $low) (local.get $stop))))
        (local.set $a (f64x2.add (local.get $a) (local.get $b)))
        (local.set $c (f64x2.add (local.get $c) (local.get $d)))
        (local.set $lower (f64.add (f64x2.extract_lane 0 (local.get $a)) (f64x2.extract_lane 1 (local.get $a))))
        (f64.store (local.get $out)
          (f64.add (local.get $lower)
            (f64.mul (f64.sub (local.get $position) (local.get $row))
              (f64.sub
                (f64.add (f64x2.extract_lane 0 (local.get $c)) (f64x2.extract_lane 1 (local.get $c)))
                (local.get $lower)))))
        (local.set $at (i32.add (local.get $at) (i32.const 8)))
        (local.set $out (i32.add (local.get $out) (i32.const 8)))
        (br $places)))))
