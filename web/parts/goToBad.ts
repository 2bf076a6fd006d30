import { useEffect } from 'react';

/** Scrolls to a field and puts the focus there. */
export function goTo(field: Element | null | undefined): void {
  if (!(field instanceof HTMLElement)) return;
  field.scrollIntoView({ block: 'center' });
  field.focus({ preventScroll: true });
}

/** Fields of a form, or of the page, that say something is wrong with them. */
export const badFields = (within: Element | Document | null | undefined): Element[] => [
  ...(within?.querySelectorAll('[aria-invalid=true]') ?? []),
];

/** After a form was refused, once more with each try: the first field that is wrong has the focus. */
export function useGoToBad(refused: object | null): void {
  useEffect(() => {
    if (!refused) return;
    // Fields say what is wrong with them as they are drawn anew.
    const drawn = setTimeout(() => goTo(badFields(document.querySelector('main'))[0]));
    return () => clearTimeout(drawn);
  }, [refused]);
}
