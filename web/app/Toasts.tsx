import { useLayoutEffect, useRef } from 'react';
import { dismiss, useToasts } from '../data/toasts';

/**
 * What was said last, in passing. On a phone it is a bar above the places that takes its own room, so that nothing to press
 * lies beneath it; on a desktop it stands in the free part of the header.
 */
export function Toasts() {
  const toasts = useToasts();
  const bar = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    document.documentElement.style.setProperty('--toasts', `${bar.current?.offsetHeight ?? 0}px`);
  }, [toasts]);
  return (
    <div
      ref={bar}
      className="no-print fixed inset-x-0 bottom-[calc(3.3rem+env(safe-area-inset-bottom))] z-40 flex flex-col bg-neutral text-neutral-content lg:inset-auto lg:top-0 lg:left-56 lg:max-w-[calc(100vw-46rem)] [&>*:not(:last-child)]:hidden"
      role="status"
      aria-live="polite"
    >
      {toasts.map((toast) => (
        <div key={toast.id} className="flex max-w-full items-center gap-3 px-4 leading-tight">
          <span className="line-clamp-2 min-w-0 flex-1 py-1.5">{toast.text}</span>
          {toast.action && (
            <button
              type="button"
              className="narrow min-h-11 shrink-0 px-2 text-lg font-semibold underline underline-offset-4"
              onClick={() => {
                toast.action?.run();
                dismiss(toast.id);
              }}
            >
              {toast.action.label}
            </button>
          )}
        </div>
      ))}
    </div>
  );
}
