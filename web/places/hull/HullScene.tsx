import { useEffect, useRef, useState } from 'react';
import type { Plane } from '#core/hull/mesh';
import { useSteady } from '../../parts/useSteady';
import type { FromScene, ToScene } from '../../workers/scene';

const TURNS: Record<string, [number, number]> = {
  ArrowLeft: [0.12, 0],
  ArrowRight: [-0.12, 0],
  ArrowUp: [0, 0.1],
  ArrowDown: [0, -0.1],
};

interface SceneProps {
  preview: Float32Array;
  mirror: boolean;
  size: { lengthM: number; depthM: number };
  waterline: Plane;
  bandM: number;
  typed: number;
  onHeight: (heightM: number) => void;
}

/**
 * The hull in three dimensions: drag the water to move the waterline, anything else to turn the boat. Drawn in a
 * worker. Where a device draws no 3D, it says so; the figures beside it do the same.
 * @param props.typed counts the heights that were typed: one typed while a drag is still on its way through the worker
 *   counts, answers to an older one are dropped
 */
export function HullScene(props: SceneProps) {
  const { box, state, send } = useScene(props);
  const place = (e: React.PointerEvent) => {
    const { left, top } = e.currentTarget.getBoundingClientRect();
    return { x: e.clientX - left, y: e.clientY - top };
  };
  if (state === 'none')
    return (
      <p className="border-l-4 border-base-content pl-3">
        This device draws no 3D here. Set the waterline by its figures: the side view follows.
      </p>
    );
  return (
    <div
      ref={box}
      tabIndex={0}
      role="application"
      aria-label="Hull in three dimensions: drag the water to move the waterline, drag beside it or use the arrow keys to turn the boat"
      className="h-64 touch-none border border-base-300 sm:h-80"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        send({ type: 'down', ...place(e) });
      }}
      onPointerMove={(e) => e.buttons > 0 && send({ type: 'move', ...place(e) })}
      onPointerUp={() => send({ type: 'up' })}
      onPointerCancel={() => send({ type: 'up' })}
      onWheel={(e) => send({ type: 'zoom', by: e.deltaY * 0.001 })}
      onKeyDown={(e) => {
        const turn = TURNS[e.key];
        if (turn) {
          e.preventDefault();
          send({ type: 'turn', across: turn[0], up: turn[1] });
        } else if (e.key === '+' || e.key === '-') send({ type: 'zoom', by: e.key === '+' ? -0.15 : 0.15 });
      }}
    />
  );
}

/** The drawing of the hull in a worker of its own: told what to draw, and heard when the water is moved by hand. */
function useScene({ preview, mirror, size, waterline, bandM, typed, onHeight }: SceneProps) {
  const box = useRef<HTMLDivElement>(null);
  const worker = useRef<Worker | null>(null);
  const heard = useSteady(onHeight);
  const serial = useRef(typed);
  useEffect(() => {
    serial.current = typed;
  }, [typed]);
  const [state, setState] = useState<'waiting' | 'ready' | 'none'>(() =>
    'transferControlToOffscreen' in HTMLCanvasElement.prototype ? 'waiting' : 'none',
  );
  const send = (message: ToScene, move: Transferable[] = []) => worker.current?.postMessage(message, move);

  useEffect(() => {
    const holder = box.current;
    if (!holder || !('transferControlToOffscreen' in HTMLCanvasElement.prototype)) return undefined;
    // A canvas is handed over once and for all, so each scene makes its own.
    const canvas = document.createElement('canvas');
    canvas.className = 'block h-full w-full';
    holder.prepend(canvas);
    const scene = new Worker(new URL('../../workers/scene.ts', import.meta.url), { type: 'module' });
    worker.current = scene;
    scene.onmessage = ({ data }: MessageEvent<FromScene>) => {
      if (data.type !== 'height') return setState(data.type);
      if (data.serial !== serial.current) return undefined;
      return heard(Math.round(data.heightM * 1000) / 1000);
    };
    scene.onerror = () => setState('none');
    const { width, height } = holder.getBoundingClientRect();
    const offscreen = canvas.transferControlToOffscreen();
    scene.postMessage(
      {
        type: 'start',
        canvas: offscreen,
        width,
        height,
        ratio: Math.min(2, devicePixelRatio),
        dark: document.documentElement.dataset.theme === 'shed',
      } satisfies ToScene,
      [offscreen],
    );
    const watch = new ResizeObserver(
      ([entry]) =>
        entry &&
        scene.postMessage({
          type: 'size',
          width: entry.contentRect.width,
          height: entry.contentRect.height,
        } satisfies ToScene),
    );
    watch.observe(holder);
    return () => {
      watch.disconnect();
      scene.terminate();
      worker.current = null;
      canvas.remove();
    };
  }, [heard]);

  useEffect(() => {
    if (state !== 'ready') return;
    const positions = preview.slice();
    send({ type: 'mesh', positions, mirror, ...size }, [positions.buffer]);
  }, [state, preview, mirror, size]);
  useEffect(() => {
    if (state === 'ready') send({ type: 'planes', ...waterline, bandM, serial: typed });
  }, [state, waterline, bandM, typed]);

  return { box, state, send };
}
