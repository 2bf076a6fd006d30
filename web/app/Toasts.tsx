import { dismiss, useToasts } from '../data/toasts';

export function Toasts() {
  const toasts = useToasts();
  return (
    <div
      className="no-print pointer-events-none fixed inset-x-0 bottom-20 z-40 empty:static flex flex-col items-center gap-2 px-3 lg:bottom-6"
      role="status"
      aria-live="polite"
    >
      {toasts.map((toast) => (
        <div
          key={toast.id}
          className="pointer-events-auto flex max-w-full items-center gap-3 rounded-sm bg-neutral px-4 text-neutral-content shadow-md"
        >
          <span className="min-w-0 py-2">{toast.text}</span>
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
