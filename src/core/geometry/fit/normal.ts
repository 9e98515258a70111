/**
 * Normal equations of eight unknowns: each row of derivatives and its gap is added as it comes, then all are solved at
 * once. The sums are written out one by one: this is where a fit spends its time.
 */
export class Normal {
  /** Eight by eight, row by row; only what lies on and below the diagonal is kept up. */
  readonly matrix = new Float64Array(64);
  /** The right side; after `solve`, the solution. */
  readonly right = new Float64Array(8);

  clear(): void {
    this.matrix.fill(0);
    this.right.fill(0);
  }

  /** Adds a row `r0`…`r7` that should come to `gap`. */
  add(
    r0: number,
    r1: number,
    r2: number,
    r3: number,
    r4: number,
    r5: number,
    r6: number,
    r7: number,
    gap: number,
  ): void {
    const m = this.matrix;
    const b = this.right;
    m[0] += r0 * r0;
    b[0] += r0 * gap;
    m[8] += r1 * r0;
    m[9] += r1 * r1;
    b[1] += r1 * gap;
    m[16] += r2 * r0;
    m[17] += r2 * r1;
    m[18] += r2 * r2;
    b[2] += r2 * gap;
    m[24] += r3 * r0;
    m[25] += r3 * r1;
    m[26] += r3 * r2;
    m[27] += r3 * r3;
    b[3] += r3 * gap;
    m[32] += r4 * r0;
    m[33] += r4 * r1;
    m[34] += r4 * r2;
    m[35] += r4 * r3;
    m[36] += r4 * r4;
    b[4] += r4 * gap;
    m[40] += r5 * r0;
    m[41] += r5 * r1;
    m[42] += r5 * r2;
    m[43] += r5 * r3;
    m[44] += r5 * r4;
    m[45] += r5 * r5;
    b[5] += r5 * gap;
    m[48] += r6 * r0;
    m[49] += r6 * r1;
    m[50] += r6 * r2;
    m[51] += r6 * r3;
    m[52] += r6 * r4;
    m[53] += r6 * r5;
    m[54] += r6 * r6;
    b[6] += r6 * gap;
    m[56] += r7 * r0;
    m[57] += r7 * r1;
    m[58] += r7 * r2;
    m[59] += r7 * r3;
    m[60] += r7 * r4;
    m[61] += r7 * r5;
    m[62] += r7 * r6;
    m[63] += r7 * r7;
    b[7] += r7 * gap;
  }

  /** Solves in place by Cholesky's decomposition; what is hardly determined at all is left near zero. */
  solve(): void {
    const m = this.matrix;
    const b = this.right;
    for (let i = 0; i < 8; i++) {
      for (let j = 0; j <= i; j++) {
        let sum = m[8 * i + j];
        for (let k = 0; k < j; k++) sum -= m[8 * i + k] * m[8 * j + k];
        m[8 * i + j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / m[9 * j];
      }
    }
    for (let i = 0; i < 8; i++) {
      for (let k = 0; k < i; k++) b[i] -= m[8 * i + k] * b[k];
      b[i] /= m[9 * i];
    }
    for (let i = 7; i >= 0; i--) {
      for (let k = i + 1; k < 8; k++) b[i] -= m[8 * k + i] * b[k];
      b[i] /= m[9 * i];
    }
  }
}
