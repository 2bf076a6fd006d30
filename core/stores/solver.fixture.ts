import loadHighs from 'highs';

/** A reference optimum by HiGHS, an open-source solver of integer programmes; for tests and the bench only. */
export async function highsCover(): Promise<
  (options: { needL: number; packs: readonly { sizeL: number; priceMinor: number }[] }) => {
    costMinor: number;
    boughtL: number;
  }
> {
  const highs = await loadHighs();
  return ({ needL, packs }) => {
    const names = packs.map((_p, i) => `n${i}`);
    const sum = (of: (i: number) => number) => names.map((n, i) => `${of(i)} ${n}`).join(' + ');
    const programme = (goal: string, more: string) =>
      `Minimize\n obj: ${goal}\nSubject To\n cover: ${sum((i) => packs[i]!.sizeL)} >= ${needL}\n${more}General\n ${names.join(' ')}\nEnd`;
    const options = { mip_rel_gap: 0, mip_abs_gap: 0 } as never;
    const first = highs.solve(
      programme(
        sum((i) => packs[i]!.priceMinor),
        '',
      ),
      options,
    );
    const costMinor = Math.round(first.ObjectiveValue);
    const second = highs.solve(
      programme(
        sum((i) => packs[i]!.sizeL),
        ` cost: ${sum((i) => packs[i]!.priceMinor)} <= ${costMinor + 0.5}\n`,
      ),
      options,
    );
    return { costMinor, boughtL: second.ObjectiveValue };
  };
}
