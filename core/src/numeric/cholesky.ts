/** The lower triangle L with L·Lᵀ = matrix (row by row, size n; Cholesky 1910); null when the matrix is not positive definite. */
export function choleskyOf(matrix: Float64Array, n: number): Float64Array | null {
  const l = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= l[i * n + k]! * l[j * n + k]!;
      if (i !== j) l[i * n + j] = sum / l[j * n + j]!;
      else if (!(sum > 1e-14 * Math.abs(matrix[i * n + i]!))) return null;
      else l[i * n + i] = Math.sqrt(sum);
    }
  }
  return l;
}

/** The inverse of a symmetric positive definite matrix (row by row, size n) by that; null when it is not positive definite. */
export function inverseOf(matrix: Float64Array, n: number): Float64Array | null {
  const l = choleskyOf(matrix, n);
  if (!l) return null;
  const inverse = new Float64Array(n * n);
  const column = new Float64Array(n);
  for (let c = 0; c < n; c++) {
    for (let i = 0; i < n; i++) {
      let sum = i === c ? 1 : 0;
      for (let k = 0; k < i; k++) sum -= l[i * n + k]! * column[k]!;
      column[i] = sum / l[i * n + i]!;
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = column[i]!;
      for (let k = i + 1; k < n; k++) sum -= l[k * n + i]! * column[k]!;
      column[i] = sum / l[i * n + i]!;
      inverse[i * n + c] = column[i]!;
    }
  }
  return inverse;
}
