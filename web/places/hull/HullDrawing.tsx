import { Download } from 'lucide-react';
import { useId, useRef, useState, type Ref } from 'react';
import type { HullLines } from '#core/hull/lines';
import { boatPlan } from '#core/hull/plan';
import type { Outline } from '#core/hull/profile';
import { boatSection } from '#core/hull/section';
import type { ZoneKind } from '#core/model/surface';
import type { Boat } from '#contracts/rows/boat';
import { BoatDrawing } from '../../parts/BoatDrawing';
import { Fig } from '../../parts/Fig';
import { StatePattern } from '../../parts/patterns';
import { BARE, ZoneRegion, type DrawnZone } from '../../parts/ZoneRegion';
import { saveText } from '../../parts/saveText';

type View = 'profile' | 'plan' | 'section';
const VIEWS: readonly (readonly [View, string])[] = [
  ['profile', 'Profile'],
  ['plan', 'Plan'],
  ['section', 'Section'],
];
const KNOWN_WORDS = {
  dimensions: 'Length, waterline, draught and freeboard are to scale; the curves between are drawn by eye.',
  offsets: 'Drawn from her table of offsets.',
  mesh: 'Drawn from her mesh.',
} as const;

interface Props {
  boat: Boat;
  zones: readonly DrawnZone[];
  lines: HullLines | null;
  bandM: number | null;
  selected: string | null;
  onPick: (surfaceId: string) => void;
}

/** The hull in three views, to scale from the best that is known of her; zones can be picked in each. */
export function HullDrawing(props: Props) {
  const { boat, lines } = props;
  const [view, setView] = useState<View>('profile');
  const [at, setAt] = useState(0.5);
  const svg = useRef<SVGSVGElement>(null);
  const length = lines ? (lines.stationsM[lines.stationsM.length - 1] as number) : boat.loaM;
  const draw = () => {
    if (svg.current) saveText(`${boat.name} ${view}.svg`, asFile(svg.current), 'image/svg+xml');
  };
  return (
    <>
      <div className="mb-1 flex flex-wrap items-center gap-3">
        <div className="join" role="group" aria-label="View">
          {VIEWS.map(([key, words]) => (
            <button
              key={key}
              type="button"
              className={`btn join-item ${view === key ? 'btn-primary' : ''}`}
              aria-pressed={view === key}
              onClick={() => setView(key)}
            >
              {words}
            </button>
          ))}
        </div>
        <button type="button" className="btn btn-ghost ml-auto" onClick={draw}>
          <Download size={18} aria-hidden="true" /> SVG
        </button>
      </div>
      {view === 'profile' && <BoatDrawing {...props} label={`${boat.name}: zones by colour`} svgRef={svg} />}
      {view === 'plan' && <Plan {...props} svgRef={svg} />}
      {view === 'section' && (
        <>
          <Section {...props} x={at * length} svgRef={svg} />
          <label className="mt-1 flex items-center gap-3">
            <span className="lab shrink-0">
              Cut <Fig quantity="length" value={at * length} /> from aft
            </span>
            <input
              type="range"
              className="min-h-11 grow accent-base-content"
              min={0}
              max={1}
              step={0.02}
              value={at}
              onChange={(e) => setAt(Number(e.target.value))}
              aria-label="Where the section is cut, from aft"
            />
          </label>
        </>
      )}
      <p className="mt-1 text-sm quiet">{KNOWN_WORDS[lines?.known ?? 'dimensions']}</p>
    </>
  );
}

const PLAN_ORDER: ZoneKind[] = ['topsides', 'deck', 'transom', 'cockpit', 'coachroof', 'nonSkid', 'anchorLocker'];

function Plan({ boat, zones, lines, selected, onPick, svgRef }: Props & { svgRef: Ref<SVGSVGElement> }) {
  const uid = useId();
  const plan = boatPlan(boat, lines);
  const pad = 0.3;
  const [width, height] = [plan.lengthM + 2 * pad, 2 * plan.halfBeamM + 2 * pad];
  const at = (p: { x: number; z: number }) => `${(p.x + pad).toFixed(3)} ${(height / 2 - p.z).toFixed(3)}`;
  const path = (o: Outline) => (o.length > 1 ? `M${o.map(at).join('L')}Z` : '');
  return (
    <svg
      ref={svgRef}
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="group"
      aria-label={`${boat.name} from above`}
      className="block max-w-full"
    >
      <Patterns uid={uid} zones={zones} scale={width / 620} />
      {PLAN_ORDER.flatMap((kind) => {
        const zone = zones.find((z) => z.kind === kind && !z.patchKind);
        // Of what is no zone of hers, only hull and deck are drawn.
        if (!zone && kind !== 'topsides' && kind !== 'deck') return [];
        return [
          <ZoneRegion
            key={kind}
            zone={zone}
            d={(plan.regions[kind] ?? []).map(path).join('')}
            fill={zone?.colourHex ?? BARE[boat.hullMaterial]}
            uid={uid}
            selected={zone !== undefined && zone.surfaceId === selected}
            onPick={onPick}
          />,
        ];
      })}
      <path
        d={path(plan.waterline)}
        fill="none"
        stroke="currentColor"
        strokeWidth="0.02"
        strokeDasharray=".2 .12"
        opacity=".6"
      />
      <path
        d={`M0 ${height / 2}H${width}`}
        stroke="currentColor"
        strokeWidth="0.012"
        strokeDasharray=".4 .1 .06 .1"
        opacity=".6"
      />
    </svg>
  );
}

function Section({
  boat,
  zones,
  lines,
  bandM,
  selected,
  onPick,
  x,
  svgRef,
}: Props & { x: number; svgRef: Ref<SVGSVGElement> }) {
  const uid = useId();
  const section = boatSection(boat, { x, lines, bandM });
  // All sections of a boat stand at one scale, so that moving the cut moves nothing else.
  const half = boat.beamM * 0.62;
  const [top, bottom] = [boat.freeboardM * 1.35, -boat.draftM * 1.15];
  const at = (p: { x: number; z: number }) => `${(p.x + half).toFixed(3)} ${(top - p.z).toFixed(3)}`;
  const open = (o: Outline) => `M${o.map(at).join('L')}`;
  const skin = boat.beamM * 0.022;
  const zoneOf = (kind: ZoneKind) => zones.find((z) => z.kind === kind && !z.patchKind);
  return (
    <svg
      ref={svgRef}
      viewBox={`0 0 ${2 * half} ${top - bottom}`}
      width="100%"
      role="group"
      aria-label={`${boat.name}: section, looking forward`}
      className="mx-auto block max-h-[22rem] max-w-full"
    >
      <Patterns uid={uid} zones={zones} scale={(2 * half) / 420} />
      {section.keels.map((keel, i) => {
        const zone = zoneOf('keel');
        return (
          <ZoneRegion
            key={i}
            zone={zone}
            d={`${open(keel)}Z`}
            fill={zone?.colourHex ?? BARE[boat.hullMaterial]}
            uid={uid}
            selected={zone !== undefined && zone.surfaceId === selected}
            onPick={onPick}
          />
        );
      })}
      <path d={`${open(section.outline)}Z`} fill={BARE[boat.hullMaterial]} opacity=".35" />
      {(['deck', 'topsides', 'underwater', 'bootTop'] as const).map((kind) => {
        const zone = zoneOf(kind);
        const lines2 = section.skin[kind] ?? [];
        if (lines2.length === 0 || (kind === 'bootTop' && !zone)) return null;
        return (
          <ZoneRegion
            key={kind}
            zone={zone}
            d={lines2.map(open).join('')}
            fill={zone?.colourHex ?? BARE[boat.hullMaterial]}
            uid={uid}
            selected={zone !== undefined && zone.surfaceId === selected}
            onPick={onPick}
            line={skin}
          />
        );
      })}
      <path
        d={`M0 ${top}H${2 * half}`}
        stroke="currentColor"
        strokeWidth="0.012"
        strokeDasharray=".12 .08"
        opacity=".6"
      />
    </svg>
  );
}

function Patterns({ uid, zones, scale }: { uid: string; zones: readonly DrawnZone[]; scale: number }) {
  return (
    <defs>
      {zones.map((z) => (
        <StatePattern key={z.surfaceId} id={`${uid}-${z.surfaceId}`} state={z.state} scale={scale} />
      ))}
    </defs>
  );
}

/** The drawing as a file of its own: to scale, one metre of boat to fifty millimetres of paper. */
function asFile(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const { width, height } = svg.viewBox.baseVal;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', `${(width * 50).toFixed(1)}mm`);
  copy.setAttribute('height', `${(height * 50).toFixed(1)}mm`);
  copy.setAttribute('color', '#1f2326');
  for (const node of [copy, ...copy.querySelectorAll('*')])
    for (const name of ['class', 'style', 'tabindex', 'role', 'aria-pressed']) node.removeAttribute(name);
  return new XMLSerializer().serializeToString(copy);
}
