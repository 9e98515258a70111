/**
 * A symmetric positive definite system whose rows begin late: row `i` holds entries from column `first[i]` on. Filled
 * with `add`, solved by Cholesky's decomposition within the same envelope (George and Liu 1981, "Computer Solution of
 * Large Sparse Positive Definite Systems", the envelope method). Linear in the rows where the envelope is narrow.
 */
export class Skyline {
  private readonly start: Int32Array;
  private readonly values: Float64Array;

  constructor(private readonly first: Int32Array) {
    const n = first.length;
    this.start = new Int32Array(n + 1);
    for (let i = 0; i < n; i++) this.start[i + 1] = this.start[i] + (i - first[i] + 1);
    this.values = new Float64Array(this.start[n]);
  }

  /** Adds to the entry at row `i` and column `j`, on or below the diagonal and within the envelope. */
  add(i: number, j: number, value: number): void {
    this.values[this.start[i] + j - this.first[i]] += value;
  }

  diagonal(i: number): number {
    return this.values[this.start[i + 1] - 1];
  }

  /** Solves in place: `b` becomes the solution. False when the matrix is not positive definite; `b` is spoilt then. */
  solve(b: Float64Array): boolean {
    const { first, start, values } = this;
    const n = first.length;
    for (let i = 0; i < n; i++) {
      const row = start[i] - first[i];
      for (let j = first[i]; j < i; j++) {
        const other = start[j] - first[j];
        let sum = values[row + j];
        for (let k = Math.max(first[i], first[j]); k < j; k++) sum -= values[row + k] * values[other + k];
        values[row + j] = sum / values[other + j];
      }
      let d = values[row + i];
      for (let k = first[i]; k < i; k++) d -= values[row + k] * values[row + k];
      if (!(d > 0)) return false;
      values[row + i] = Math.sqrt(d);
      let y = b[i];
      for (let k = first[i]; k < i; k++) y -= values[row + k] * b[k];
      b[i] = y / values[row + i];
    }
    for (let i = n - 1; i >= 0; i--) {
      const row = start[i] - first[i];
      b[i] /= values[row + i];
      for (let k = first[i]; k < i; k++) b[k] -= values[row + k] * b[i];
    }
    return true;
  }
}
