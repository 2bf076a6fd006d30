import { Suspense, type ComponentProps } from 'react';
import { part } from '../../parts/part';

const Fetched = part(() => import('./EditLayer'), 'EditLayer');

/** The form of one coat: fetched when the first coat is picked, ahead of that where there is time. */
export function EditLayer(props: ComponentProps<typeof Fetched>) {
  return (
    <Suspense fallback={<div className="skeleton h-64 rounded-sm" role="status" aria-label="Loading the coat" />}>
      <Fetched {...props} />
    </Suspense>
  );
}
