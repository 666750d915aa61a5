;; Sums of products of two rows of numbers with a run of samples, for every step-th place of the run.
(module
  (memory (export "memory") 16)

  ;; $a and $b are rows of $bytes bytes, a multiple of 32; $x advances by $step bytes a result; $count results go to
  ;; $re (by $a) and $im (by $b), 8 bytes each.
  (func (export "both")
    (param $x i32) (param $a i32) (param $b i32) (param $bytes i32) (param $step i32) (param $count i32)
    (param $re i32) (param $im i32)
    (local $j i32) (local $p i32)
    (local $x0 v128) (local $x1 v128) (local $a0 v128) (local $a1 v128) (local $b0 v128) (local $b1 v128)
    (block $done
      (loop $results
        (br_if $done (i32.eqz (local.get $count)))
        (local.set $a0 (v128.const f64x2 0 0))
        (local.set $a1 (v128.const f64x2 0 0))
        (local.set $b0 (v128.const f64x2 0 0))
        (local.set $b1 (v128.const f64x2 0 0))
        (local.set $j (i32.const 0))
        (loop $taps
          (local.set $p (i32.add (local.get $x) (local.get $j)))
          (local.set $x0 (v128.load (local.get $p)))
          (local.set $x1 (v128.load offset=16 (local.get $p)))
          (local.set $p (i32.add (local.get $a) (local.get $j)))
          (local.set $a0 (f64x2.add (local.get $a0) (f64x2.mul (local.get $x0) (v128.load (local.get $p)))))
          (local.set $a1 (f64x2.add (local.get $a1) (f64x2.mul (local.get $x1) (v128.load offset=16 (local.get $p)))))
          (local.set $p (i32.add (local.get $b) (local.get $j)))
          (local.set $b0 (f64x2.add (local.get $b0) (f64x2.mul (local.get $x0) (v128.load (local.get $p)))))
          (local.set $b1 (f64x2.add (local.get $b1) (f64x2.mul (local.get $x1) (v128.load offset=16 (local.get $p)))))
          (local.set $j (i32.add (local.get $j) (i32.const 32)))
          (br_if $taps (i32.lt_u (local.get $j) (local.get $bytes))))
        (local.set $a0 (f64x2.add (local.get $a0) (local.get $a1)))
        (local.set $b0 (f64x2.add (local.get $b0) (local.get $b1)))
        (f64.store (local.get $re)
          (f64.add (f64x2.extract_lane 0 (local.get $a0)) (f64x2.extract_lane 1 (local.get $a0))))
        (f64.store (local.get $im)
          (f64.add (f64x2.extract_lane 0 (local.get $b0)) (f64x2.extract_lane 1 (local.get $b0))))
        (local.set $re (i32.add (local.get $re) (i32.const 8)))
        (local.set $im (i32.add (local.get $im) (i32.const 8)))
        (local.set $x (i32.add (local.get $x) (local.get $step)))
        (local.set $count (i32.sub (local.get $count) (i32.const 1)))
        (br $results))))

  ;; The same with one row of numbers.
  (func (export "one")
    (param $x i32) (param $a i32) (param $bytes i32) (param $step i32) (param $count i32) (param $re i32)
    (local $j i32) (local $p i32) (local $q i32) (local $a0 v128) (local $a1 v128)
    (block $done
      (loop $results
        (br_if $done (i32.eqz (local.get $count)))
        (local.set $a0 (v128.const f64x2 0 0))
        (local.set $a1 (v128.const f64x2 0 0))
        (local.set $j (i32.const 0))
        (loop $taps
          (local.set $p (i32.add (local.get $x) (local.get $j)))
          (local.set $q (i32.add (local.get $a) (local.get $j)))
          (local.set $a0
            (f64x2.add (local.get $a0) (f64x2.mul (v128.load (local.get $p)) (v128.load (local.get $q)))))
          (local.set $a1
            (f64x2.add (local.get $a1)
              (f64x2.mul (v128.load offset=16 (local.get $p)) (v128.load offset=16 (local.get $q)))))
          (local.set $j (i32.add (local.get $j) (i32.const 32)))
          (br_if $taps (i32.lt_u (local.get $j) (local.get $bytes))))
        (local.set $a0 (f64x2.add (local.get $a0) (local.get $a1)))
        (f64.store (local.get $re)
          (f64.add (f64x2.extract_lane 0 (local.get $a0)) (f64x2.extract_lane 1 (local.get $a0))))
        (local.set $re (i32.add (local.get $re) (i32.const 8)))
        (local.set $x (i32.add (local.get $x) (local.get $step)))
        (local.set $count (i32.sub (local.get $count) (i32.const 1)))
        (br $results)))))
