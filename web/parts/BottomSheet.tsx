import { useId, type ReactNode } from 'react';
import { X } from 'lucide-react';
import { useModal } from './useModal';

/** A dialog under the thumb: it rises from below on a phone, and stands in the middle elsewhere. */
export function BottomSheet({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  const dialog = useModal();
  const id = useId();
  return (
    <dialog
      ref={dialog}
      className="modal modal-bottom sm:modal-middle"
      aria-labelledby={id}
      onClose={onClose}
      onClick={(e) => e.target === e.currentTarget && onClose()}
    >
      <div className="modal-box rounded-none border-t-4 border-base-content">
        <div className="mb-2 flex items-center justify-between gap-3">
          <h2 id={id}>{title}</h2>
          <button type="button" className="btn btn-ghost" aria-label="Close" onClick={onClose}>
            <X size={20} aria-hidden="true" />
          </button>
        </div>
        {children}
      </div>
    </dialog>
  );
}
