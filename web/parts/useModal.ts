import { useEffect, useRef, type RefObject } from 'react';

/** A dialog that is open, over all else, for as long as it is there. */
export function useModal(): RefObject<HTMLDialogElement | null> {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  return dialog;
}
