import { readFileSync } from 'node:fs';
import type { Download } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** The words on each page of a file that was handed over, by code that did not write it. */
export async function wordsOf(file: Download): Promise<string[][]> {
  const document = await getDocument({ data: new Uint8Array(readFileSync(await file.path())), verbosity: 0 }).promise;
  const pages: string[][] = [];
  for (let n = 1; n <= document.numPages; n++) {
    const { items } = await (await document.getPage(n)).getTextContent();
    pages.push(items.flatMap((item) => ('str' in item && item.str.trim() ? [item.str] : [])));
  }
  return pages;
}
