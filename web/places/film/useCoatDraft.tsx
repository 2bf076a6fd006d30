import equal from 'fast-deep-equal';
import { useState } from 'react';
import { type Layer } from '#core/model/layer';
import { type SheetRevision } from '#core/model/sheet';
import { largestFilm, largestThinner } from '#core/system/stack';
import type { SheetRow } from '#contracts/rows/sheet';
import { useSettings } from '../../data/settings';
import { useSheets } from '../../data/store';
import { useLeaveGuard } from '../../parts/useLeaveGuard';
import { shareWords } from '../../parts/words';

/** A coat as it is edited; a film dragged in the section meanwhile is taken over. */
export function useCoatDraft(layer: Layer, revision: SheetRevision | undefined) {
  const { units } = useSettings();
  const { data: sheets } = useSheets();
  const [draft, setDraft] = useState(layer);
  const [profile, setProfile] = useState<number | null>(null);
  // A film dragged in the section meanwhile shows here.
  const [dragged, setDragged] = useState(layer.dftMicron);
  if (dragged !== layer.dftMicron) {
    setDragged(layer.dftMicron);
    setDraft({ ...draft, dftMicron: layer.dftMicron });
  }
  useLeaveGuard(!equal(draft, layer));
  const picked = sheets?.find((s) => s.current.id === draft.sheetRevisionId)?.current ?? revision;
  return { picked, setDraft, draft, sheets, units, profile, setProfile };
}

/** What may be typed for a coat of this sheet, and what stands against it. */
export function coatForm({
  picked,
  setDraft,
  draft,
  sheets,
}: {
  picked: SheetRevision;
  setDraft: (value: Layer) => void;
  draft: Layer;
  sheets: SheetRow[] | undefined;
}) {
  const sheet = picked.body;
  const set = (change: Partial<Layer>) => setDraft({ ...draft, ...change });
  const grit = draft.grit;
  const bad =
    [
      draft.dftMicron,
      draft.thinnerShare,
      draft.loss,
      draft.deadVolumeLPerM2,
      draft.absorption ?? 0,
      grit ?? 120,
      draft.holdMonths ?? 0,
    ].some((v) => Number.isNaN(v)) || draft.dftMicron <= 0;
  const others = (sheets ?? []).filter((s) => !s.withdrawn || s.current.id === picked.id);
  const most = largestFilm(sheet, draft.method);
  const thinnerMost = largestThinner(sheet, draft.method) ?? 0;
  const warnings = [
    most !== null && draft.dftMicron > most
      ? 'Thicker than the sheet’s largest dry film: solvent is trapped and it cracks. Two thinner coats are better.'
      : null,
    draft.thinnerShare > thinnerMost
      ? thinnerMost > 0
        ? `More thinner than the sheet’s ${shareWords(thinnerMost)}: it sags and loses film.`
        : 'The sheet gives no thinner for this product.'
      : null,
  ].filter((w) => w !== null);
  const tick = (key: 'wipe' | 'mask' | 'stripe' | 'tip', words: string) => (
    <label className="link-row gap-2">
      <input
        type="checkbox"
        className="checkbox"
        checked={draft[key] ?? false}
        onChange={(e) => set({ [key]: e.target.checked || undefined })}
      />{' '}
      {words}
    </label>
  );
  return { picked, sheet, others, set, thinnerMost, tick, warnings, bad };
}
