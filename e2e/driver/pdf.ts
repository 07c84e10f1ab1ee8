import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** All words of a PDF, page after page, with single spaces. */
export async function wordsOfPdf(bytes: Buffer): Promise<string> {
  const document = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const pages = await Promise.all(
    Array.from({ length: document.numPages }, async (_, i) => {
      const { items } = await (await document.getPage(i + 1)).getTextContent();
      return items.map((t) => ('str' in t ? t.str : '')).join(' ');
    }),
  );
  return pages.join(' ').replace(/\s+/g, ' ');
}
