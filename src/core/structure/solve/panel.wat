;; The two loops of the elimination of a dense front; see dense.ts.
;;
;; `column` brings the entries of a column, `size` rows from `at`, up to date: from each it takes the sum of the entries
;; before it in its row, from `from`, times those at `row`, `count` bytes of them, rounded up to pairs with a zero.
;;
;; `behind`: what is left of a front once a panel of its columns is eliminated: the lower triangle, by tiles of four rows and
;; four columns, minus the rows of the panel times themselves scaled by the pivots. Tiles on the diagonal reach above
;; it, and those at the end beyond the matrix: nothing there is ever read.
;; Rows of the panel lie in groups of four, each group column by column: `plain` as they are, `scaled` times the pivots.
;; `f` is the entry behind the panel on the diagonal, `stride` the bytes of a row, `size` the rows left, at least one.
;; Assembled into panelBytes.ts by `./run kernel`.
(module
  (memory (import "front" "memory") 1)
  (func (export "column")
    (param $at i32) (param $from i32) (param $stride i32) (param $size i32) (param $row i32) (param $count i32)
    (local $a i32) (local $b i32) (local $end i32) (local $s v128)
    (local.set $end (i32.add (local.get $row) (local.get $count)))
    (loop $rows
      (local.set $s (v128.const i64x2 0 0))
      (local.set $a (local.get $from))
      (local.set $b (local.get $row))
      (loop $sum
        (local.set $s (f64x2.add (local.get $s) (f64x2.mul (v128.load (local.get $a)) (v128.load (local.get $b)))))
        (local.set $a (i32.add (local.get $a) (i32.const 16)))
        (local.set $b (i32.add (local.get $b) (i32.const 16)))
        (br_if $sum (i32.lt_u (local.get $b) (local.get $end))))
      (f64.store (local.get $at)
        (f64.sub
          (f64.load (local.get $at))
          (f64.add (f64x2.extract_lane 0 (local.get $s)) (f64x2.extract_lane 1 (local.get $s)))))
      (local.set $at (i32.add (local.get $at) (local.get $stride)))
      (local.set $from (i32.add (local.get $from) (local.get $stride)))
      (local.set $size (i32.sub (local.get $size) (i32.const 1)))
      (br_if $rows (local.get $size))))
  (func (export "behind")
    (param $f i32) (param $stride i32) (param $size i32) (param $plain i32) (param $scaled i32) (param $width i32)
    (local $group i32) (local $i i32) (local $j i32) (local $row i32) (local $at i32)
    (local $a i32) (local $b i32) (local $end i32) (local $left i32) (local $x v128) (local $y0 v128) (local $y1 v128)
    (local $s00 v128) (local $s01 v128) (local $s10 v128) (local $s11 v128)
    (local $s20 v128) (local $s21 v128) (local $s30 v128) (local $s31 v128)
    (local.set $group (i32.mul (local.get $width) (i32.const 32)))
    (local.set $row (local.get $f))
    (local.set $left (local.get $plain))
    (loop $rows
      (local.set $j (i32.const 0))
      (local.set $at (local.get $row))
      (local.set $b (local.get $scaled))
      (loop $columns
        (local.set $s00 (v128.const i64x2 0 0)) (local.set $s01 (v128.const i64x2 0 0))
        (local.set $s10 (v128.const i64x2 0 0)) (local.set $s11 (v128.const i64x2 0 0))
        (local.set $s20 (v128.const i64x2 0 0)) (local.set $s21 (v128.const i64x2 0 0))
        (local.set $s30 (v128.const i64x2 0 0)) (local.set $s31 (v128.const i64x2 0 0))
        (local.set $a (local.get $left))
        (local.set $end (i32.add (local.get $a) (local.get $group)))
        (loop $sum
          (local.set $y0 (v128.load (local.get $b)))
          (local.set $y1 (v128.load offset=16 (local.get $b)))
          (local.set $x (v128.load64_splat (local.get $a)))
          (local.set $s00 (f64x2.add (local.get $s00) (f64x2.mul (local.get $x) (local.get $y0))))
          (local.set $s01 (f64x2.add (local.get $s01) (f64x2.mul (local.get $x) (local.get $y1))))
          (local.set $x (v128.load64_splat offset=8 (local.get $a)))
          (local.set $s10 (f64x2.add (local.get $s10) (f64x2.mul (local.get $x) (local.get $y0))))
          (local.set $s11 (f64x2.add (local.get $s11) (f64x2.mul (local.get $x) (local.get $y1))))
          (local.set $x (v128.load64_splat offset=16 (local.get $a)))
          (local.set $s20 (f64x2.add (local.get $s20) (f64x2.mul (local.get $x) (local.get $y0))))
          (local.set $s21 (f64x2.add (local.get $s21) (f64x2.mul (local.get $x) (local.get $y1))))
          (local.set $x (v128.load64_splat offset=24 (local.get $a)))
          (local.set $s30 (f64x2.add (local.get $s30) (f64x2.mul (local.get $x) (local.get $y0))))
          (local.set $s31 (f64x2.add (local.get $s31) (f64x2.mul (local.get $x) (local.get $y1))))
          (local.set $a (i32.add (local.get $a) (i32.const 32)))
          (local.set $b (i32.add (local.get $b) (i32.const 32)))
          (br_if $sum (i32.lt_u (local.get $a) (local.get $end))))
        (call $take (local.get $at) (local.get $s00) (local.get $s01))
        (call $take (i32.add (local.get $at) (local.get $stride)) (local.get $s10) (local.get $s11))
        (call $take (i32.add (local.get $at) (i32.mul (local.get $stride) (i32.const 2)))
          (local.get $s20) (local.get $s21))
        (call $take (i32.add (local.get $at) (i32.mul (local.get $stride) (i32.const 3)))
          (local.get $s30) (local.get $s31))
        (local.set $at (i32.add (local.get $at) (i32.const 32)))
        (local.set $j (i32.add (local.get $j) (i32.const 4)))
        (br_if $columns (i32.le_u (local.get $j) (local.get $i))))
      (local.set $left (i32.add (local.get $left) (local.get $group)))
      (local.set $row (i32.add (local.get $row) (i32.mul (local.get $stride) (i32.const 4))))
      (local.set $i (i32.add (local.get $i) (i32.const 4)))
      (br_if $rows (i32.lt_u (local.get $i) (local.get $size)))))
  (func $take (param $at i32) (param $low v128) (param $high v128)
    (v128.store (local.get $at) (f64x2.sub (v128.load (local.get $at)) (local.get $low)))
    (v128.store offset=16 (local.get $at) (f64x2.sub (v128.load offset=16 (local.get $at)) (local.get $high)))))
