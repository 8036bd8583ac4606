/** Logistic regression with a ridge, by Newton's method (iteratively reweighted least squares). */
export function fit(rows: readonly Float64Array[], labels: readonly number[], ridge: number): Float64Array {
  const n = rows[0]!.length;
  const w = new Float64Array(n);
  for (let round = 0; round < 25; round += 1) {
    const gradient = new Float64Array(n);
    const hessian = Array.from({ length: n }, () => new Float64Array(n));
    rows.forEach((x, k) => {
      let z = 0;
      for (let i = 0; i < n; i += 1) z += w[i]! * x[i]!;
      const p = 1 / (1 + Math.exp(-z));
      const s = p * (1 - p) + 1e-9;
      for (let i = 0; i < n; i += 1) {
        const xi = x[i]!;
        if (!xi) continue;
        gradient[i]! += (labels[k]! - p) * xi;
        const row = hessian[i]!;
        for (let j = 0; j < n; j += 1) row[j]! += s * xi * x[j]!;
      }
    });
    for (let i = 0; i < n; i += 1) {
      gradient[i]! -= ridge * w[i]!;
      hessian[i]![i]! += ridge;
    }
    const step = solve(hessian, gradient);
    let most = 0;
    for (let i = 0; i < n; i += 1) {
      w[i]! += step[i]!;
      most = Math.max(most, Math.abs(step[i]!));
    }
    if (most < 1e-4) break;
  }
  return w;
}

/** Gauss with pivots. */
function solve(a: Float64Array[], b: Float64Array): Float64Array {
  const n = b.length;
  const m = a.map((row, i) => Float64Array.from([...row, b[i]!]));
  for (let i = 0; i < n; i += 1) {
    let p = i;
    for (let k = i + 1; k < n; k += 1) if (Math.abs(m[k]![i]!) > Math.abs(m[p]![i]!)) p = k;
    [m[i], m[p]] = [m[p]!, m[i]!];
    for (let k = i + 1; k < n; k += 1) {
      const f = m[k]![i]! / m[i]![i]!;
      if (f) for (let j = i; j <= n; j += 1) m[k]![j]! -= f * m[i]![j]!;
    }
  }
  const x = new Float64Array(n);
  for (let i = n - 1; i >= 0; i -= 1) {
    let sum = m[i]![n]!;
    for (let j = i + 1; j < n; j += 1) sum -= m[i]![j]! * x[j]!;
    x[i] = sum / m[i]![i]!;
  }
  return x;
}
