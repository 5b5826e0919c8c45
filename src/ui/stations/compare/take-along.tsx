'use client';

import { type TextTable, tablesCsv, tablesMarkdown } from '../../../core/text/table-text.ts';
import { copyText } from '../../parts/copy-text.ts';
import { pictureOf, saveAsPng } from '../../parts/picture.ts';
import { saveFile } from '../../parts/save-file.ts';
import { toast } from '../../parts/toast.ts';

const BUTTON = 'rounded border border-line px-2.5 py-1 hover:border-ink';

/** Ways to take tables along: as Markdown for a review, as CSV for table programs. */
export function TakeTables({ tables, file }: { tables: () => TextTable[]; file: string }) {
  const copy = () => {
    const text = tablesMarkdown(tables());
    void copyText(text, 'Copied as Markdown', () => {
      saveFile(`${file}.md`, 'text/markdown', text);
      toast('The browser doesn’t let this page copy; saved as a file instead.');
    });
  };
  return (
    <div className="flex shrink-0 gap-2">
      <button type="button" onClick={copy} className={BUTTON}>
        Copy as Markdown
      </button>
      <button type="button" onClick={() => saveFile(`${file}.csv`, 'text/csv', tablesCsv(tables()))} className={BUTTON}>
        Save as CSV
      </button>
    </div>
  );
}

/** Ways to take a drawing along. */
export function TakePicture({ drawing, file }: { drawing: () => SVGSVGElement | null; file: string }) {
  const svg = () => {
    const found = drawing();
    if (found) saveFile(`${file}.svg`, 'image/svg+xml', pictureOf(found));
  };
  const png = async () => {
    const found = drawing();
    if (!found) return;
    try {
      await saveAsPng(`${file}.png`, found);
    } catch {
      toast.error('The browser can’t draw this as PNG. Save it as SVG instead.');
    }
  };
  return (
    <div className="flex shrink-0 gap-2">
      <button type="button" onClick={svg} className={BUTTON}>
        Save as SVG
      </button>
      <button type="button" onClick={() => void png()} className={BUTTON}>
        Save as PNG
      </button>
    </div>
  );
}
