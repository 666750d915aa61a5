/**
 * A symmetric positive definite matrix as L·Lᵀ (Cholesky), L being lower triangular.
 * @param matrix n × n, row by row; its lower triangle is replaced by L, the rest is left as it is
 * @throws RangeError when it is not positive definite
 */
export function intoTriangle(matrix: Float64Array, n: number): void {
  for (let j = 0; j < n; j++) {
    const row = j * n;
    for (let i = 0; i < j; i++) {
      let sum = matrix[row + i];
      for (let k = 0; k < i; k++) sum -= matrix[row + k] * matrix[i * n + k];
      matrix[row + i] = sum / matrix[i * n + i];
    }
    let left = matrix[row + j];
    for (let k = 0; k < j; k++) left -= matrix[row + k] ** 2;
    if (!(left > 0)) throw new RangeError("The matrix is not positive definite.");
    matrix[row + j] = Math.sqrt(left);
  }
}

/** Replaces b by the x of L·x = b. @param triangle L as intoTriangle gives it, n × n @param b n */
export function solveLower(triangle: Float64Array, b: Float64Array): void {
  const n = b.length;
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) b[i] -= triangle[i * n + k] * b[k];
    b[i] /= triangle[i * n + i];
  }
}

/** Replaces b by the x of Lᵀ·x = b, likewise. */
export function solveUpper(triangle: Float64Array, b: Float64Array): void {
  const n = b.length;
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) b[i] -= triangle[k * n + i] * b[k];
    b[i] /= triangle[i * n + i];
  }
}
