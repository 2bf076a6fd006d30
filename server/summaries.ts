import { DateTime } from 'luxon';
import { LAUNCH_HOUR } from '#contracts/rows/boat';
import { weatherAt, type SourcedHour } from '#core/air/weather';
import { comingClocks, namedTimers } from '#core/coat/clocks';
import { foldLog } from '#core/coat/fold';
import { launchAgainst } from '#core/coat/launch';
import { wetEdges } from '#core/coat/wetEdge';
import { boatStillMasked } from '#core/prep/stillMasked';
import { zoneStatuses } from '#core/coat/zoneStatus';
import { yardZones, type Yard, type YardBoat } from '#contracts/rows/yard';
import { Impossible } from '#core/impossible';
import type { Clock } from './clock';
import type { BoatRows } from './db/boatCache';
import { bundleOf } from './db/boats';
import type { Store } from './db/store';
import type { Notices } from './keep/notices';
import type { LedgerFacts } from '#contracts/rows/stores';
import { boatCall, ledgerBatches, lessonsOf, lotsOf, storesOf, type BoatCall } from './db/stores';

const HOUR_MS = 3_600_000;
/** Starts are looked at in quarter hours, so a summary holds for no longer. */
const QUARTER_MS = HOUR_MS / 4;

/** A clock that stands so far before the last entry was set back. */
const CLOCK_OFF_MS = 5 * 60_000;

interface Summary {
  readonly from: number;
  readonly until: number;
  /** The boat's part of the answer, already written out, but for the air: that moves all the time. */
  readonly json: string;
  /** The hours around the time it holds for. */
  readonly hours: readonly SourcedHour[];
}

/**
 * What the whole yard is told of each boat, kept for as long as it is true: until something of that boat is written
 * (what is stored of her is then another object) or the next of her milestones passes.
 */
export class Summaries {
  private readonly kept = new WeakMap<BoatRows, Promise<Summary>>();
  private readonly calls = new WeakMap<BoatRows, BoatCall>();
  private shelf: { readonly key: string; readonly json: string } | null = null;

  constructor(
    private readonly store: Store,
    private readonly clock: Clock,
    private readonly about: { readonly demo: boolean; readonly open: boolean },
    private readonly notices: Notices,
  ) {}

  /** The whole yard at a glance, as JSON. Boats that have to be worked out anew leave room for others between them. */
  async yardJson(): Promise<string> {
    const parts: string[] = [];
    for (const rows of await this.all()) {
      const { json, hours } = await this.summary(rows);
      const now = this.clock.now();
      const air = weatherAt(hours, now) as SourcedHour | null;
      const summary: YardBoat['air'] = air
        ? { airC: air.airC, rh: air.rh, simulated: hours.findLast((h) => h.at <= now)?.source === 'simulated' }
        : null;
      parts.push(`${json.slice(0, -1)},"air":${JSON.stringify(summary)}}`);
    }
    const { demo, open } = this.about;
    const now = this.clock.now();
    const { lastAt } = this.store.journal;
    const head = JSON.stringify({
      now,
      frozen: this.clock.frozen,
      demo,
      open,
      clockBehind: lastAt !== null && lastAt > now + CLOCK_OFF_MS ? lastAt : null,
      clockSet: this.clock.set,
      keptNotice: this.notices.list[0]?.text ?? null,
      savingWaits: this.store.savingWaits,
    } satisfies Omit<Yard, 'boats'>);
    return `${head.slice(0, -1)},"boats":[${parts.join(',')}]}`;
  }

  /** The shelf and everything that draws on it, as JSON: the same until something is written, or the day is over. */
  async storesJson(): Promise<string> {
    const key = `${this.store.changes} ${Math.floor(this.clock.now() / QUARTER_MS)}`;
    if (this.shelf?.key !== key) this.shelf = { key, json: JSON.stringify(await this.stores()) };
    return this.shelf.json;
  }

  /** As `storesJson`, worked out. */
  async stores() {
    const calls: BoatCall[] = [];
    for (const rows of await this.all()) {
      let call = this.calls.get(rows);
      if (!call) {
        await this.store.breathe();
        try {
          call = boatCall(rows);
        } catch (error) {
          // A boat that cannot be worked out is told in the yard; the shelf goes on without her.
          if (!(error instanceof Impossible)) throw error;
          continue;
        }
        this.calls.set(rows, call);
      }
      calls.push(call);
    }
    return storesOf(this.store.db, calls, this.clock.now());
  }

  /** Tins and batches of one product, for its ratio ledger. */
  async ledgerFacts(sheetId: string): Promise<LedgerFacts> {
    const boatRows = await this.all();
    return {
      sheetId,
      lots: await lotsOf(this.store.db, sheetId),
      batches: boatRows.flatMap((rows) => ledgerBatches(rows, sheetId)).sort((a, b) => a.at - b.at),
      lessons: boatRows.flatMap((rows) => lessonsOf(rows, sheetId)),
    };
  }

  private async all(): Promise<BoatRows[]> {
    const out: BoatRows[] = [];
    const ids = await this.store.boats.list();
    await this.store.boats.fetch(ids, () => this.store.breathe());
    for (const id of ids) {
      const rows = await this.store.boats.get(id);
      if (rows) out.push(rows);
    }
    return out;
  }

  private async summary(rows: BoatRows): Promise<Summary> {
    const now = this.clock.now();
    const kept = await this.kept.get(rows)?.catch(() => null);
    if (kept && kept.from <= now && now < kept.until) return kept;
    const making = this.store.breathe().then(() => summaryOrReason(rows, now));
    this.kept.set(rows, making);
    return making;
  }
}

/** A boat that cannot be worked out is listed with the reason; the others as usual. */
function summaryOrReason(rows: BoatRows, now: number): Summary {
  try {
    return summaryOf(rows, now);
  } catch (error) {
    if (!(error instanceof Impossible)) throw error;
    const summary: Omit<YardBoat, 'air'> = {
      boat: rows.boat,
      // Days are counted in her time zone, which may be what is wrong.
      job: null,
      zones: [],
      clocks: [],
      timers: [],
      launchAgainst: [],
      problem: error.message,
    };
    return { from: now, until: now + QUARTER_MS, json: JSON.stringify(summary), hours: [] };
  }
}

function summaryOf(rows: BoatRows, now: number): Summary {
  const bundle = bundleOf(rows, { now: () => now, frozen: false });
  const statuses = zoneStatuses(bundle);
  const { batches, coats } = foldLog(bundle.entries);
  const timers = namedTimers({ batches, sheets: bundle.sheets, now });
  const edges = wetEdges({ coats, sheets: bundle.sheets, airC: weatherAt(bundle.hours, now)?.airC ?? null });
  const clocks = comingClocks(statuses, timers, now, edges);
  const zones = yardZones(statuses, bundle.surfaces);
  const inOn = bundle.jobs[bundle.jobs.length - 1]?.inOn;
  const launches = inOn
    ? DateTime.fromISO(inOn, { zone: bundle.boat.timeZone }).set({ hour: LAUNCH_HOUR }).toMillis()
    : null;
  const against =
    launches === null
      ? []
      : launchAgainst({
          statuses,
          surfaces: bundle.surfaces,
          launchAt: launches,
          now,
          masked: boatStillMasked(bundle),
        });
  const nameOf = (id: string) => bundle.surfaces.find((s) => s.id === id)?.name ?? '';
  const summary: Omit<YardBoat, 'air'> = {
    boat: bundle.boat,
    job: bundle.jobs[bundle.jobs.length - 1] ?? null,
    zones,
    clocks: clocks.slice(0, 12),
    timers,
    launchAgainst: against.map((a) => ({ ...a, name: nameOf(a.surfaceId) })),
  };
  const milestones = [
    ...clocks.map((c) => c.at),
    ...zones.flatMap((z) => [z.firstStartAt, z.lastStartAt]),
    ...timers.map((t) => t.dueAt),
  ].filter((at): at is number => at !== null && at > now);
  const until = Math.min((Math.floor(now / QUARTER_MS) + 1) * QUARTER_MS, ...milestones);
  return {
    from: now,
    until,
    json: JSON.stringify(summary),
    hours: bundle.hours.filter((h) => h.at >= now - 4 * HOUR_MS && h.at <= until + 4 * HOUR_MS),
  };
}
