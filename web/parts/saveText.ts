import { RUNS_AS_FORMULA } from '#core/csv';

/** Give the person a text as a file of that name. */
export function saveText(name: string, text: string, type: string): void {
  saveBlob(name, new Blob([text], { type }));
}

export function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name.replace(/[\\/:*?"<>|]+/g, ' ');
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Cells as a CSV file; the writer is fetched only when it is wanted. */
export async function saveCsv(name: string, cells: readonly (readonly string[])[]): Promise<void> {
  const { default: Papa } = await import('papaparse');
  saveText(name, Papa.unparse(cells as string[][], { newline: '\r\n', escapeFormulae: RUNS_AS_FORMULA }), 'text/csv');
}
