import { useMemo } from 'react';
import { Link } from 'react-router';
import type { Layer } from '#core/model/layer';
import { packsMinor } from '#core/stores/money';
import type { ZoneLedger } from '#core/system/ledger';
import { applyNamed, type Followers as Told } from '#core/system/system';
import { counted, shownUnit } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import { useSettings } from '../../data/settings';
import type { BoatView } from '../../data/store';
import { Fig } from '../../parts/Fig';
import { moneyWords, packWords } from '../../parts/words';
import { FindingMark } from '../film/FindingMark';
import { PackLines } from '../film/LedgerPanel';
import { useJobLedger } from '../film/useLedger';
import { onZone, type Zone } from './useNamedEditor';

interface FollowersProps extends Told<Zone> {
  readonly views: readonly BoatView[];
  /** The build-up's layers as they stand here; null where they are as they were saved. */
  readonly changed: readonly Layer[] | null;
  readonly sheetOf: (revisionId: string) => string;
  /** Film of the build-up itself. */
  readonly keptMicron: number;
  readonly onInLine: (zone: Zone) => void;
}

/** The zones that have it: those that follow change with it, those that departed are told how. */
export function Followers({ views, follow, departed, ...rest }: FollowersProps) {
  const any = follow.length + departed.length > 0;
  return (
    <section aria-labelledby="who">
      <h2 id="who" className="ruled pb-1">
        {any
          ? `${counted(follow.length, 'zone follows', 'zones follow')}${departed.length > 0 ? `, ${departed.length} departed` : ''}`
          : 'On no zone yet'}
      </h2>
      {views.map((view) => (
        <BoatFollows
          key={view.boat.id}
          view={view}
          follow={follow.filter((z) => z.view === view)}
          departed={departed.filter((d) => d.zone.view === view)}
          {...rest}
        />
      ))}
      {!any && <p className="py-1.5 quiet">Take it for a zone under Film, Named build-ups.</p>}
    </section>
  );
}

type BoatFollowsProps = Omit<FollowersProps, 'views'> & { view: BoatView };

function BoatFollows({ view, follow, departed, changed, sheetOf, keptMicron, onInLine }: BoatFollowsProps) {
  const { units } = useSettings();
  const drafts = useMemo(
    () =>
      changed
        ? new Map(
            follow.flatMap((z) => {
              const next = applyNamed(onZone(z, changed, sheetOf));
              return next ? [[z.row.surfaceId, next] as const] : [];
            }),
          )
        : undefined,
    [changed, follow, sheetOf],
  );
  const { ledger, currency } = useJobLedger(view, drafts);
  const unit = shownUnit('volume', units);
  const line = (zone: Zone) => (
    <ZoneLine
      path={`/boats/${view.boat.id}/film/${zone.row.surfaceId}`}
      zone={zone}
      own={ledger.zones.find((x) => x.surfaceId === zone.row.surfaceId)}
      unit={unit}
      keptMicron={keptMicron}
    />
  );
  return (
    <div className="border-b border-base-300 py-2">
      <p className="flex items-baseline gap-3">
        <span className="narrow min-w-0 flex-1 truncate text-lg font-semibold">{view.boat.name}</span>
        <span>
          job’s packs <span className="fig text-lg">{moneyWords(packsMinor(ledger.products), currency)}</span>
        </span>
      </p>
      <p className="lab text-right">all coats, about {unit.symbol}</p>
      <ul>
        {follow.map((z) => (
          <li key={z.row.id}>{line(z)}</li>
        ))}
        {departed.map(({ zone, differences }) => (
          <li key={zone.row.id}>
            {line(zone)}
            <p className="text-sm quiet">
              departed: {differences.join(', ')}.{' '}
              <button type="button" className="link-row underline underline-offset-4" onClick={() => onInLine(zone)}>
                Bring in line
              </button>
            </p>
          </li>
        ))}
      </ul>
      <ul aria-label={`Packs for ${view.boat.name}`} className="border-t border-base-300 pt-1">
        {ledger.products.map(
          ({ sheetId, sheet, purchase }) =>
            purchase &&
            purchase.packs.length > 0 && (
              <li
                key={sheetId}
                className="flex flex-wrap items-center justify-between gap-x-3 leading-tight max-sm:py-1 sm:h-12 sm:flex-nowrap sm:items-start sm:pt-1"
              >
                <span className="min-w-0 truncate sm:w-2/5 sm:shrink-0">{sheet.name}</span>
                <PackLines
                  packs={packWords(purchase.packs)}
                  className="max-w-full sm:line-clamp-2 sm:flex-1 sm:text-right"
                />
              </li>
            ),
        )}
      </ul>
    </div>
  );
}

interface ZoneLineProps {
  path: string;
  zone: Zone;
  own: ZoneLedger | undefined;
  unit: Unit;
  keptMicron: number;
}

/** A zone with what all its coats take, and its film where that is another than the build-up's. */
function ZoneLine({ path, zone, own, unit, keptMicron }: ZoneLineProps) {
  const worst = own?.findings.find((f) => f.severity !== 'note')?.severity;
  const total = own?.perM2?.total;
  return (
    <div className="flex h-9 items-center gap-4">
      <Link to={path} className="min-w-0 flex-1 truncate underline decoration-1 underline-offset-4">
        {zone.name}
      </Link>
      {worst && <FindingMark severity={worst} />}
      {total && Math.abs(total.keptMicron - keptMicron) > 0.5 && <Fig quantity="film" value={total.keptMicron} />}
      <span className="w-20 text-right">
        {total && <Fig quantity="volume" value={total.litres * zone.areaM2} unit={unit} bare />}
      </span>
    </div>
  );
}
