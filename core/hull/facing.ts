/** Connected pieces, and for every triangle whether it faces as the root of its piece does (union–find with parity). */
export class Parts {
  private readonly parent: Int32Array;
  private readonly turned: Uint8Array;

  constructor(count: number) {
    this.parent = new Int32Array(count);
    for (let i = 0; i < count; i += 1) this.parent[i] = i;
    this.turned = new Uint8Array(count);
  }

  /** Root of a triangle; afterwards the triangle hangs on it directly. */
  private root(t: number): number {
    let at = t;
    let turn = 0;
    while (this.parent[at] !== at) {
      turn ^= this.turned[at] as number;
      at = this.parent[at] as number;
    }
    const root = at;
    at = t;
    while (this.parent[at] !== root && at !== root) {
      const up = this.parent[at] as number;
      const own = this.turned[at] as number;
      this.parent[at] = root;
      this.turned[at] = turn;
      turn ^= own;
      at = up;
    }
    return root;
  }

  join(a: number, b: number, opposite: boolean): void {
    const [ra, rb] = [this.root(a), this.root(b)];
    if (ra === rb) return;
    const turn =
      (a === ra ? 0 : (this.turned[a] as number)) ^ (b === rb ? 0 : (this.turned[b] as number)) ^ (opposite ? 1 : 0);
    this.parent[rb] = ra;
    this.turned[rb] = turn;
  }

  /** Triangles that face inwards, or where a piece is flat or its sides balance, the fewer ones. */
  inverted(p: Float32Array, skipped: Uint8Array, low: readonly number[], high: readonly number[]): number {
    const count = this.parent.length;
    const [mx, my, mz] = [0, 1, 2].map((k) => ((low[k] as number) + (high[k] as number)) / 2) as [
      number,
      number,
      number,
    ];
    const outward = new Float64Array(count);
    const weight = new Float64Array(count);
    const asRoot = new Int32Array(count);
    const against = new Int32Array(count);
    for (let t = 0; t < count; t += 1) {
      if (skipped[t] === 1) continue;
      const root = this.root(t);
      const turn = t === root ? 0 : (this.turned[t] as number);
      if (turn) against[root] = (against[root] as number) + 1;
      else asRoot[root] = (asRoot[root] as number) + 1;
      const wedge = sixfoldVolume(p, 9 * t, mx, my, mz);
      outward[root] = (outward[root] as number) + (turn ? -wedge : wedge);
      weight[root] = (weight[root] as number) + Math.abs(wedge);
    }
    let inverted = 0;
    for (let r = 0; r < count; r += 1) {
      if (this.parent[r] !== r || skipped[r] === 1) continue;
      const [same, turned] = [asRoot[r] as number, against[r] as number];
      const decided = Math.abs(outward[r] as number) > 0.01 * (weight[r] as number);
      inverted += decided ? ((outward[r] as number) > 0 ? turned : same) : Math.min(same, turned);
    }
    return inverted;
  }
}

function sixfoldVolume(p: Float32Array, i: number, mx: number, my: number, mz: number): number {
  const ax = (p[i] as number) - mx,
    ay = (p[i + 1] as number) - my,
    az = (p[i + 2] as number) - mz;
  const bx = (p[i + 3] as number) - mx,
    by = (p[i + 4] as number) - my,
    bz = (p[i + 5] as number) - mz;
  const cx = (p[i + 6] as number) - mx,
    cy = (p[i + 7] as number) - my,
    cz = (p[i + 8] as number) - mz;
  return ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
}
