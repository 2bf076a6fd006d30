import { Matrix, solve } from 'ml-matrix';
import { fairLine } from '#core';

const MARKS = 2000;

/** Marks of a fair line with some noise, the same each time. */
function noisyMarks() {
  let state = 7;
  const next = () => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return state / 2147483648 - 0.5;
  };
  return Array.from({ length: MARKS }, (_, i) => {
    const sM = i * 0.01;
    return { sM, heightM: 1 + 0.02 * Math.sin(sM * 0.7) + 0.012 * (next() + next() + next()) };
  });
}

/** The penalised equations of one smoothness solved as a full matrix: (R + λ QᵀQ) γ = Qᵀ z. */
function denseMs(marks: readonly { sM: number; heightM: number }[], lambda: number): number {
  const n = marks.length;
  const Q = Matrix.zeros(n, n - 2);
  const B = Matrix.zeros(n - 2, n - 2);
  const h = (i: number) => (marks[i + 1]?.sM ?? 0) - (marks[i]?.sM ?? 0);
  for (let k = 0; k < n - 2; k += 1) {
    Q.set(k, k, 1 / h(k));
    Q.set(k + 1, k, -1 / h(k) - 1 / h(k + 1));
    Q.set(k + 2, k, 1 / h(k + 1));
  }
  for (let a = 0; a < n - 2; a += 1)
    for (let b = Math.max(0, a - 2); b < Math.min(n - 2, a + 3); b += 1) {
      let product = 0;
      for (let i = Math.max(a, b); i <= Math.min(a, b) + 2; i += 1) product += Q.get(i, a) * Q.get(i, b);
      const bend = a === b ? (h(a) + h(a + 1)) / 3 : Math.abs(a - b) === 1 ? h(Math.max(a, b)) / 6 : 0;
      B.set(a, b, bend + lambda * product);
    }
  const right = Matrix.columnVector(
    Array.from({ length: n - 2 }, (_, k) =>
      [0, 1, 2].reduce((sum, i) => sum + Q.get(k + i, k) * (marks[k + i]?.heightM ?? 0), 0),
    ),
  );
  const start = performance.now();
  solve(B, right);
  return performance.now() - start;
}

/** A whole fairing, its smoothness found and strays looked for, beside one dense solution of the same marks. */
export function waterline(): void {
  const marks = noisyMarks();
  fairLine({ marks });
  const fairings = Array.from({ length: 3 }, () => {
    const start = performance.now();
    fairLine({ marks });
    return performance.now() - start;
  });
  const own = Math.min(...fairings);
  const dense = denseMs(marks, 1e-3);
  console.log(
    `fairing ${MARKS} marks: ${own.toFixed(0)} ms, ${(own / dense).toFixed(4)} of one dense solution (${dense.toFixed(0)} ms; wanted: at most 0.1)`,
  );
}
