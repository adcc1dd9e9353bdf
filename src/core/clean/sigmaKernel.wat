;; The inside of the sigma filter, four pixels at a time. The same as `filterInside` in sigmaFilter.ts, bit for bit.
;; `npm run kernels` turns this file into sigmaKernel.ts.
(module
  (memory (export "memory") 1)
  ;; $from, $to: addresses of the first pixel that is read and of where it is written, RGBA; two pixels and two rows around it exist.
  ;; $stride: bytes of a row. $count: pixels, a multiple of four. $reach: levels, 0 to 254. $alone: 1 to mend pixels that nothing near resembles.
  ;; $offsets: address of the offsets of the neighbours, $neighbours of them, bytes.
  (func (export "filterRow") (param $from i32) (param $to i32) (param $stride i32) (param $count i32) (param $reach i32) (param $alone i32) (param $offsets i32) (param $neighbours i32)
    (local $own v128) (local $other v128) (local $like v128) (local $low v128) (local $high v128) (local $seen v128) (local $limit v128) (local $lone v128)
    (local $k i32) (local $last i32) (local $end i32)
    (local.set $limit (i8x16.splat (local.get $reach)))
    (local.set $end (i32.add (local.get $from) (i32.shl (local.get $count) (i32.const 2))))
    (local.set $last (i32.add (local.get $offsets) (i32.shl (local.get $neighbours) (i32.const 2))))
    (block $done
      (loop $pixels
        (br_if $done (i32.ge_u (local.get $from) (local.get $end)))
        (local.set $own (v128.load (local.get $from)))
        (local.set $low (i16x8.extend_low_i8x16_u (local.get $own)))
        (local.set $high (i16x8.extend_high_i8x16_u (local.get $own)))
        (local.set $seen (v128.const i32x4 1 1 1 1))
        (local.set $k (local.get $offsets))
        (loop $around
          (local.set $other (v128.load (i32.add (local.get $from) (i32.load (local.get $k)))))
          ;; A neighbour is like the pixel when no channel but alpha differs by more than the reach.
          (local.set $like
            (i32x4.eq
              (v128.or
                (i8x16.le_u
                  (v128.or (i8x16.sub_sat_u (local.get $own) (local.get $other)) (i8x16.sub_sat_u (local.get $other) (local.get $own)))
                  (local.get $limit))
                (v128.const i32x4 0xff000000 0xff000000 0xff000000 0xff000000))
              (v128.const i32x4 -1 -1 -1 -1)))
          (local.set $other (v128.and (local.get $other) (local.get $like)))
          (local.set $low (i16x8.add (local.get $low) (i16x8.extend_low_i8x16_u (local.get $other))))
          (local.set $high (i16x8.add (local.get $high) (i16x8.extend_high_i8x16_u (local.get $other))))
          (local.set $seen (i32x4.sub (local.get $seen) (local.get $like)))
          (local.set $k (i32.add (local.get $k) (i32.const 4)))
          (br_if $around (i32.lt_u (local.get $k) (local.get $last))))
        (if (local.get $alone)
          (then
            (local.set $lone (i32x4.eq (local.get $seen) (v128.const i32x4 1 1 1 1)))
            (if (v128.any_true (local.get $lone))
              (then
                ;; The sums of the four direct neighbours where nothing was like the pixel.
                (local.set $seen (v128.bitselect (v128.const i32x4 4 4 4 4) (local.get $seen) (local.get $lone)))
                (local.set $low (v128.bitselect
                  (i16x8.add
                    (i16x8.add (v128.load8x8_u (i32.sub (local.get $from) (i32.const 4))) (v128.load8x8_u (i32.add (local.get $from) (i32.const 4))))
                    (i16x8.add (v128.load8x8_u (i32.sub (local.get $from) (local.get $stride))) (v128.load8x8_u (i32.add (local.get $from) (local.get $stride)))))
                  (local.get $low)
                  (i8x16.shuffle 0 1 2 3 0 1 2 3 4 5 6 7 4 5 6 7 (local.get $lone) (local.get $lone))))
                (local.set $high (v128.bitselect
                  (i16x8.add
                    (i16x8.add (v128.load8x8_u (i32.add (local.get $from) (i32.const 4))) (v128.load8x8_u (i32.add (local.get $from) (i32.const 12))))
                    (i16x8.add
                      (v128.load8x8_u (i32.add (i32.sub (local.get $from) (local.get $stride)) (i32.const 8)))
                      (v128.load8x8_u (i32.add (i32.add (local.get $from) (local.get $stride)) (i32.const 8)))))
                  (local.get $high)
                  (i8x16.shuffle 8 9 10 11 8 9 10 11 12 13 14 15 12 13 14 15 (local.get $lone) (local.get $lone))))))))
        (v128.store (local.get $to)
          (v128.bitselect
            (local.get $own)
            (i8x16.narrow_i16x8_u
              (i16x8.narrow_i32x4_s
                (call $mean (i32x4.extend_low_i16x8_u (local.get $low)) (i32x4.extract_lane 0 (local.get $seen)))
                (call $mean (i32x4.extend_high_i16x8_u (local.get $low)) (i32x4.extract_lane 1 (local.get $seen))))
              (i16x8.narrow_i32x4_s
                (call $mean (i32x4.extend_low_i16x8_u (local.get $high)) (i32x4.extract_lane 2 (local.get $seen)))
                (call $mean (i32x4.extend_high_i16x8_u (local.get $high)) (i32x4.extract_lane 3 (local.get $seen)))))
            (v128.const i32x4 0xff000000 0xff000000 0xff000000 0xff000000)))
        (local.set $from (i32.add (local.get $from) (i32.const 16)))
        (local.set $to (i32.add (local.get $to) (i32.const 16)))
        (br $pixels))))
  ;; Sums over a count, rounded to the nearest: a quotient is either whole, and then exact, or at least a twenty-first away from the next whole number.
  (func $mean (param $sums v128) (param $count i32) (result v128)
    (i32x4.trunc_sat_f32x4_s
      (f32x4.div
        (f32x4.convert_i32x4_s (i32x4.add (local.get $sums) (i32x4.splat (i32.shr_u (local.get $count) (i32.const 1)))))
        (f32x4.splat (f32.convert_i32_s (local.get $count)))))))
