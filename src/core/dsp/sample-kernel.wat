;; What is done with every sample of a recording, whatever is measured of it.
(module
  (memory (export "memory") 16)

  ;; Pairs of 16-bit integers at $x, left and right in turn, as two runs of single-precision numbers, full scale = 1. Four
  ;; pairs are taken at a time: there has to be room for as many as make $count a multiple of four.
  (func (export "sixteen") (param $x i32) (param $left i32) (param $right i32) (param $count i32)
    (local $pairs v128) (local $scale v128)
    (local.set $scale (f32x4.splat (f32.const 0x1p-15)))
    (block $done
      (loop $four
        (br_if $done (i32.le_s (local.get $count) (i32.const 0)))
        (local.set $pairs (v128.load (local.get $x)))
        (v128.store (local.get $left)
          (f32x4.mul
            (f32x4.convert_i32x4_s (i32x4.shr_s (i32x4.shl (local.get $pairs) (i32.const 16)) (i32.const 16)))
            (local.get $scale)))
        (v128.store (local.get $right)
          (f32x4.mul
            (f32x4.convert_i32x4_s (i32x4.shr_s (local.get $pairs) (i32.const 16)))
            (local.get $scale)))
        (local.set $x (i32.add (local.get $x) (i32.const 16)))
        (local.set $left (i32.add (local.get $left) (i32.const 16)))
        (local.set $right (i32.add (local.get $right) (i32.const 16)))
        (local.set $count (i32.sub (local.get $count) (i32.const 4)))
        (br $four))))

  ;; The sum of the squares of $count single-precision numbers at $x, a multiple of eight and some thousands at most: it is
  ;; summed in single precision, and no number where one of them is none. The largest magnitude of the others goes to $peak.
  (func (export "look") (param $x i32) (param $count i32) (param $peak i32) (result f32)
    (local $four v128) (local $next v128) (local $sum v128) (local $more v128) (local $largest v128)
    (block $done
      (loop $eight
        (br_if $done (i32.eqz (local.get $count)))
        (local.set $four (v128.load (local.get $x)))
        (local.set $next (v128.load offset=16 (local.get $x)))
        (local.set $sum (f32x4.add (local.get $sum) (f32x4.mul (local.get $four) (local.get $four))))
        (local.set $more (f32x4.add (local.get $more) (f32x4.mul (local.get $next) (local.get $next))))
        (local.set $largest
          (f32x4.pmax
            (f32x4.pmax (local.get $largest) (f32x4.abs (local.get $four)))
            (f32x4.abs (local.get $next))))
        (local.set $x (i32.add (local.get $x) (i32.const 32)))
        (local.set $count (i32.sub (local.get $count) (i32.const 8)))
        (br $eight)))
    (f32.store (local.get $peak)
      (f32.max
        (f32.max (f32x4.extract_lane 0 (local.get $largest)) (f32x4.extract_lane 1 (local.get $largest)))
        (f32.max (f32x4.extract_lane 2 (local.get $largest)) (f32x4.extract_lane 3 (local.get $largest)))))
    (local.set $sum (f32x4.add (local.get $sum) (local.get $more)))
    (f32.add
      (f32.add (f32x4.extract_lane 0 (local.get $sum)) (f32x4.extract_lane 1 (local.get $sum)))
      (f32.add (f32x4.extract_lane 2 (local.get $sum)) (f32x4.extract_lane 3 (local.get $sum))))))
