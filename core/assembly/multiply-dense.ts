/**
 * One dense layer, four numbers at a time: the inner loop of `core/src/mir/net/dense-kernel.ts` in AssemblyScript, whose `f32x4` are
 * the 128-bit vectors of WebAssembly. `npm run build:kernel` compiles it into `core/src/mir/net/dense-kernel-wasm.ts`.
 *
 * Addresses are in bytes; rows are `stride` numbers long, a multiple of four, their ends filled with zeros. Rows come in fours and
 * outputs in twos: eight sums share six loads.
 */
export function multiplyDense(
  weights: usize,
  biases: usize,
  input: usize,
  out: usize,
  stride: i32,
  rows: i32,
  outputs: i32,
): void {
  const row: usize = (<usize>stride) << 2;
  for (let r: i32 = 0; r < rows; r += 4) {
    const x0: usize = input + <usize>r * row;
    const x1: usize = x0 + row;
    const x2: usize = x1 + row;
    const x3: usize = x2 + row;
    let to: usize = out + ((<usize>(r * outputs)) << 2);
    const next: usize = (<usize>outputs) << 2;
    for (let o: i32 = 0; o < outputs; o += 2) {
      const v: usize = weights + <usize>o * row;
      const u: usize = v + row;
      let s0 = f32x4.splat(0);
      let s1 = s0;
      let s2 = s0;
      let s3 = s0;
      let t0 = s0;
      let t1 = s0;
      let t2 = s0;
      let t3 = s0;
      for (let i: usize = 0; i < row; i += 16) {
        const a = v128.load(v + i);
        const b = v128.load(u + i);
        let x = v128.load(x0 + i);
        s0 = f32x4.add(s0, f32x4.mul(a, x));
        t0 = f32x4.add(t0, f32x4.mul(b, x));
        x = v128.load(x1 + i);
        s1 = f32x4.add(s1, f32x4.mul(a, x));
        t1 = f32x4.add(t1, f32x4.mul(b, x));
        x = v128.load(x2 + i);
        s2 = f32x4.add(s2, f32x4.mul(a, x));
        t2 = f32x4.add(t2, f32x4.mul(b, x));
        x = v128.load(x3 + i);
        s3 = f32x4.add(s3, f32x4.mul(a, x));
        t3 = f32x4.add(t3, f32x4.mul(b, x));
      }
      const p = load<f32>(biases + ((<usize>o) << 2));
      const q = load<f32>(biases + ((<usize>o) << 2) + 4);
      store<f32>(to, p + sum(s0));
      store<f32>(to + 4, q + sum(t0));
      store<f32>(to + next, p + sum(s1));
      store<f32>(to + next + 4, q + sum(t1));
      store<f32>(to + 2 * next, p + sum(s2));
      store<f32>(to + 2 * next + 4, q + sum(t2));
      store<f32>(to + 3 * next, p + sum(s3));
      store<f32>(to + 3 * next + 4, q + sum(t3));
      to += 8;
    }
  }
}

function sum(v: v128): f32 {
  return (
    f32x4.extract_lane(v, 0) +
    f32x4.extract_lane(v, 1) +
    (f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3))
  );
}
