import { useState } from 'react';
import type { Change } from './changes';
import type { Failure } from './waiting';
import { save } from './store';

/**
 * Sending a form: what went wrong is kept beside it with everything typed, and where someone else was quicker,
 * the newer row and its version.
 */
export function useSubmit() {
  const [failure, setFailure] = useState<Failure | null>(null);
  const [sending, setSending] = useState(false);
  const theirs = failure?.code === 'stale' ? (failure.current as Record<string, unknown> & { version: number }) : null;
  const submit = async (change: Change, label: string): Promise<boolean> => {
    setSending(true);
    setFailure(null);
    const outcome = await save(change, label, { inline: true });
    setSending(false);
    if (!outcome.ok) setFailure(outcome.failure);
    return outcome.ok;
  };
  return { failure, theirs, sending, submit };
}
