import { useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import type { RecordKind } from '#core/system/stack';
import { repeatCoat } from '#core/system/system';
import type { BoatView } from '../../data/store';
import { counted } from '#core/units/format';
import { AddLayer } from './AddLayer';
import { EditLayer } from './lazyEditLayer';
import { FindingsPanel } from './FindingsPanel';
import { FromNamed } from './FromNamed';
import { JobLinks } from './JobLinks';
import { LedgerPanel } from './LedgerPanel';
import { backToAdding, type AddPanel } from './usePanel';
import type { ZoneFilm } from './useZoneFilm';

/** What the right-hand side shows besides a coat that is being added. */
export type RestPanel = { kind: 'ledger'; rule: string | null } | { kind: 'coat'; id: string } | { kind: 'named' };
export type Panel = RestPanel | AddPanel;

export const LEDGER: RestPanel = { kind: 'ledger', rule: null };

interface SideProps {
  view: BoatView;
  surface: BoatView['surfaces'][number];
  film: ZoneFilm;
  panel: Panel;
  onPanel: (panel: Panel) => void;
  onRecord: (kind: RecordKind) => void;
}

/** Beside the section: what is being added or changed, or else what the rules say and what the coats take. */
export function ZoneSide(props: SideProps) {
  const { view, surface, film, panel, onPanel } = props;
  const close = () => onPanel(LEDGER);
  const path = `/boats/${view.boat.id}/film/${surface.id}`;
  const { layers, row, write } = film;
  return (
    <>
      <JobLinks
        boatId={view.boat.id}
        surfaceId={surface.id}
        choices={film.job.choices}
        onNamed={() => onPanel({ kind: 'named' })}
      />
      {panel.kind === 'add' ? (
        <AddLayer
          where={
            panel.at >= layers.length ? `on ${surface.name}` : `beneath ${film.coats[panel.at]?.name ?? 'the next'}`
          }
          choices={film.job.choices}
          exposure={surface.exposure}
          beneath={view.sheetById.get(layers[panel.at - 1]?.sheetRevisionId ?? '')?.body.kind ?? null}
          back={backToAdding(path, panel.at)}
          onAdd={(added) => {
            film.add(added, panel.at);
            close();
          }}
          onBack={close}
        />
      ) : panel.kind === 'named' ? (
        <FromNamed
          view={view}
          surface={surface}
          row={row}
          onWrite={(change, label) => {
            write(change, label);
            close();
          }}
          onBack={close}
        />
      ) : (
        <CoatOrLedger {...props} />
      )}
    </>
  );
}

function CoatOrLedger(props: SideProps) {
  const { view, surface, film, panel, onPanel } = props;
  const close = () => onPanel(LEDGER);
  const { layers, write } = film;
  const current = panel.kind === 'coat' ? layers.find((l) => l.id === panel.id) : undefined;
  if (!current) return layers.length > 0 && <RulesAndLedger {...props} />;
  return (
    <EditLayer
      key={current.id}
      revision={view.sheetById.get(current.sheetRevisionId)}
      layer={current}
      first={layers[0]?.id === current.id}
      locked={film.isOn(current.id)}
      area={surface}
      onSave={(next) => {
        write({ layers: layers.map((l) => (l.id === next.id ? next : l)) }, 'Coat changed');
        close();
      }}
      onRepeat={() => write({ layers: repeatCoat(layers, current.id, uuid) }, `${counted(1, 'coat')} added`)}
      onRemove={() => {
        write({ layers: layers.filter((l) => l.id !== current.id) }, 'Coat taken out');
        close();
      }}
      onBack={close}
    />
  );
}

function RulesAndLedger({ view, surface, film, panel, onPanel, onRecord }: SideProps) {
  const navigate = useNavigate();
  const { layers, row, write } = film;
  const overrides = row?.overrides ?? [];
  return (
    <>
      <FindingsPanel
        findings={film.findings}
        layers={layers}
        overrides={overrides}
        records={row?.records ?? []}
        shown={panel.kind === 'ledger' ? panel.rule : null}
        onMend={(m) => (m.kind === 'record' ? onRecord(m.record) : void film.mend(m))}
        onLetStand={film.letStand}
        onTakeBack={(o) => write({ overrides: overrides.filter((x) => x.key !== o.key) }, 'No longer let stand')}
      />
      <LedgerPanel
        quantities={film.quantities}
        job={film.job}
        boatId={view.boat.id}
        sheetIdOf={(id) => view.sheetById.get(id)?.sheetId}
      />
      <div className="flex flex-wrap gap-3">
        <button type="button" className="btn btn-primary" onClick={() => onPanel({ kind: 'add', at: layers.length })}>
          Add a coat
        </button>
        <button
          type="button"
          className="btn"
          onClick={() => void navigate(`/boats/${view.boat.id}/mix?on=${surface.id}`)}
        >
          Mix the next coat
        </button>
      </div>
    </>
  );
}
