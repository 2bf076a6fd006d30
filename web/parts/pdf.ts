import semiBold from '@expo-google-fonts/atkinson-hyperlegible-next/600SemiBold/AtkinsonHyperlegibleNext_600SemiBold.ttf?url';
import regular from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf?url';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

export const PAGE_FONT = 'Atkinson Hyperlegible Next';

/** Write a page as PDF, in the letters of the pages; the writer and its fonts are fetched only now. */
export async function pdfOf(page: TDocumentDefinitions): Promise<Blob> {
  const { default: pdfMake } = await import('pdfmake/build/pdfmake');
  const writer = pdfMake as unknown as {
    addFonts(fonts: Record<string, Record<'normal' | 'bold', string>>): void;
    createPdf(page: TDocumentDefinitions): { getBlob(): Promise<Blob> };
  };
  // The writer fetches by whole addresses only.
  const at = (asset: string) => new URL(asset, location.href).href;
  writer.addFonts({ [PAGE_FONT]: { normal: at(regular), bold: at(semiBold) } });
  return writer.createPdf(page).getBlob();
}
