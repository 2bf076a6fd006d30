import { useEffect, useState } from 'react';

/** An address for a file that is on this device, for as long as it is shown; null before it has one, or without a file. */
export function useObjectUrl(file: Blob | undefined): string | null {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    if (!file) return;
    const made = URL.createObjectURL(file);
    const shown = requestAnimationFrame(() => setUrl(made));
    return () => {
      cancelAnimationFrame(shown);
      URL.revokeObjectURL(made);
      setUrl(null);
    };
  }, [file]);
  return url;
}
