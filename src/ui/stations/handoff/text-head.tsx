'use client';

import { copyText } from '../../parts/copy-text.ts';
import { saveFile } from '../../parts/save-file.ts';
import { toast } from '../../parts/toast.ts';

/** What a text is and what it is for, with the ways to take it along; none of them for an empty text. */
export function TextHead({
  name,
  use,
  text,
  file,
  mime,
}: {
  name: string;
  use: string;
  text: string;
  file: string;
  mime: string;
}) {
  const copy = () =>
    void copyText(text, `${name} copied`, () =>
      toast('The browser doesn’t let this page copy. Save it as a file instead.'),
    );
  return (
    <div className="mb-2 flex items-start justify-between gap-4">
      <div>
        <h2 className="text-[15px] font-semibold">{name}</h2>
        <p className="text-soft">{use}</p>
      </div>
      {text === '' ? null : (
        <div className="flex shrink-0 gap-2">
          <button type="button" onClick={copy} className="rounded border border-line px-3 py-1.5 hover:border-ink">
            Copy
          </button>
          <button
            type="button"
            onClick={() => saveFile(file, mime, text)}
            className="rounded bg-ink px-3 py-1.5 font-medium text-on-ink"
          >
            Save as a file
          </button>
        </div>
      )}
    </div>
  );
}

/** The name of a plan as the beginning of a file's name. */
export function fileStem(name: string): string {
  return (
    name
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || 'plan'
  );
}
