import { proxy, releaseProxy, wrap, type Remote } from 'comlink';
import { startTransition, useEffect, useMemo, useRef, useState, type DragEvent } from 'react';
import type { MeshDefects } from '#core/hull/defects';
import type { Plane } from '#core/hull/mesh';
import { type MeshSize, type Placement } from '#core/hull/placement';
import { MESH_MAX_BYTES } from '#core/hull/stl';
import type { MeshRecord } from '#core/model/area';
import { useView } from '../../app/BoatShell';
import { fetchFile } from '../../data/files';
import { useSteady } from '../../parts/useSteady';
import { tooLarge } from '../../workers/limits';
import type { CutMesh, MeshWorker } from '../../workers/mesh';

export interface Opened {
  /** To read it anew after work was called off. */
  blob: Blob;
  file: File | null;
  stored: { fileHash: string; bytes: number } | null;
  name: string;
  triangles: number;
  placement: Placement;
  waterline: Plane;
  bandM: number;
}

export interface Found extends CutMesh {
  size: MeshSize;
}

/** A worker of one's own, begun anew when work is called off. */
function useMeshWorker() {
  const held = useRef<{ worker: Worker; remote: Remote<MeshWorker> } | null>(null);
  const get = () => {
    if (!held.current) {
      const worker = new Worker(new URL('../../workers/mesh.ts', import.meta.url), { type: 'module' });
      held.current = { worker, remote: wrap<MeshWorker>(worker) };
    }
    return held.current.remote;
  };
  const stop = () => {
    held.current?.remote[releaseProxy]();
    held.current?.worker.terminate();
    held.current = null;
  };
  useEffect(() => stop, []);
  return { get, stop };
}

/** A mesh file: read, laid and cut in a worker, and what was found so far. */
export function useMeshFile() {
  const view = useView();
  const { boat, hull } = view;
  const own = useMemo(() => ({ loaM: boat.loaM, beamM: boat.beamM, depthM: boat.draftM + boat.freeboardM }), [boat]);
  const cutter = useCutting(own);

  const open = async (file: Blob, name: string, stored: MeshRecord | null) => {
    cutter.setProblem(null);
    // Refused before a byte of it is read.
    if (file.size > MESH_MAX_BYTES) return cutter.setProblem(tooLarge(file.size));
    cutter.setWork(`Reading ${name}`);
    const mine = cutter.begin();
    try {
      const { triangles, placement } = await cutter.get().open(file, name, own);
      if (!cutter.isNewest(mine)) return;
      cutter.setLoaded();
      const next: Opened = {
        blob: file,
        file: stored ? null : (file as File),
        stored: stored ? { fileHash: stored.fileHash, bytes: stored.bytes } : null,
        name,
        triangles,
        placement: stored?.placement ?? placement,
        waterline: stored?.waterline ?? { heightM: boat.draftM, heelDeg: 0, trimDeg: 0 },
        bandM: stored?.bandM ?? 0.15,
      };
      cutter.setDefects(null);
      cutter.setPreview(null);
      cutter.setFound(null);
      cutter.setOpened(next);
      await cutter.cut(next, true);
    } catch (error) {
      if (!cutter.isNewest(mine)) return;
      cutter.setProblem((error as Error).message);
      cutter.setWork(null);
    }
  };
  const openStored = async (mesh: MeshRecord) => {
    cutter.setWork(`Fetching ${mesh.fileName}`);
    try {
      await open(await fetchFile(mesh.fileHash), mesh.fileName, mesh);
    } catch (error) {
      cutter.setProblem((error as Error).message);
      cutter.setWork(null);
    }
  };
  const cancel = () => {
    cutter.callOff();
    if (!cutter.found) cutter.setOpened(null);
  };
  const change = (by: Partial<Opened>, replace: boolean) => {
    if (!cutter.opened) return;
    const next = { ...cutter.opened, ...by };
    cutter.setOpened(next);
    const { heightM, heelDeg, trimDeg } = next.waterline;
    if ([heightM, heelDeg, trimDeg, next.bandM].every(Number.isFinite)) void cutter.cut(next, replace);
  };
  // What is found is drawn anew only when it changes, not with every line of progress.
  const onChange = useSteady(change);
  const drop = (e: DragEvent) => {
    e.preventDefault();
    const [file] = e.dataTransfer.files;
    if (file) void open(file, file.name, null);
  };
  return { ...cutter, view, boat, hull, own, open, openStored, cancel, onChange, drop };
}

/** Laying and cutting in the worker, and what came of it. */
function useCutting(own: OwnSize) {
  const { get, stop } = useMeshWorker();
  const [opened, setOpened] = useState<Opened | null>(null);
  const [found, setFound] = useState<Found | null>(null);
  const [defects, setDefects] = useState<MeshDefects | null>(null);
  const [preview, setPreview] = useState<Float32Array | null>(null);
  const [work, setWork] = useState<string | null>(null);
  const bar = useRef<HTMLProgressElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const job = useRef(0);
  const loaded = useRef(false);

  /** How far a piece of work is goes straight to its bar: nothing else is drawn anew for it. */
  const tellOf = (mine: number) =>
    proxy((share: number) => {
      if (mine === job.current && bar.current) bar.current.value = share;
    });

  /** Lay and cut anew; a newer wish overtakes an older one. */
  const cut = async (next: Opened, replace: boolean) => {
    const mine = (job.current += 1);
    const worker = get();
    try {
      const anew = replace || !loaded.current;
      if (!loaded.current) {
        setWork(`Reading ${next.name}`);
        await worker.open(next.blob, next.name, own);
        loaded.current = true;
      }
      if (anew) setWork('Cutting it at the waterline');
      const size = anew ? await worker.place(next.placement) : (found?.size as MeshSize);
      const result = await worker.cut(next.waterline, next.bandM, tellOf(mine));
      if (mine !== job.current) return;
      // Drawn in slices: the page goes on answering meanwhile.
      startTransition(() => setFound({ ...result, size }));
      setProblem(null);
      if (!anew) return;
      const coarse = await worker.preview();
      startTransition(() => setPreview(coarse));
      // Areas stand already; what is wrong with the mesh may take its time.
      setWork('Looking for holes and doubles');
      const wrong = await worker.defects(tellOf(mine));
      if (mine === job.current) startTransition(() => setDefects(wrong));
    } catch (error) {
      if (mine === job.current) setProblem((error as Error).message);
    } finally {
      if (mine === job.current) setWork(null);
    }
  };
  const begin = () => (job.current += 1);
  const isNewest = (mine: number) => mine === job.current;
  const setLoaded = () => (loaded.current = true);
  const callOff = () => {
    job.current += 1;
    stop();
    loaded.current = false;
    setWork(null);
  };
  return {
    begin,
    isNewest,
    setLoaded,
    callOff,
    setProblem,
    setWork,
    get,
    setDefects,
    setPreview,
    setFound,
    setOpened,
    cut,
    found,
    opened,
    work,
    problem,
    bar,
    defects,
    preview,
  };
}

/** The boat's own figures, which a mesh is held against. */
export interface OwnSize {
  readonly loaM: number;
  readonly beamM: number;
  readonly depthM: number;
}
