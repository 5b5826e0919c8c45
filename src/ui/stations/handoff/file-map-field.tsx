'use client';

import { useRef, useState } from 'react';
import { readFileMap } from '../../../core/formats/file-map.ts';
import type { FileMap } from '../../../core/handoff/addresses.ts';

const LARGEST = 20_000_000;

/** Where addresses come from: stand-ins, until a map from modules to built files is given. */
export function FileMapField({
  standIns,
  name,
  onTake,
}: {
  standIns: number;
  name: string | null;
  onTake: (files: { name: string; map: FileMap } | null) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      if (file.size > LARGEST) throw new Error(`${file.name} is larger than ${LARGEST / 1_000_000} MB.`);
      const map = readFileMap(await file.text(), file.name);
      setTrouble(null);
      onTake({ name: file.name, map });
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <section aria-label="Addresses" className="mt-6">
      <h2 className="mb-1 font-semibold">Addresses</h2>
      <p className="text-soft">
        {standIns === 0
          ? 'All files have their real addresses.'
          : `${standIns} files have stand-ins such as {{name}}: their real addresses aren’t known yet.`}
      </p>
      {name ? (
        <p className="mt-1 break-all">
          from {name}{' '}
          <button type="button" className="underline" onClick={() => onTake(null)}>
            leave it out
          </button>
        </p>
      ) : null}
      <input
        ref={input}
        type="file"
        accept="application/json,.json"
        className="sr-only"
        aria-label="Map from modules to built files"
        onChange={(event) => void take(event.target.files?.[0])}
      />
      <button
        type="button"
        onClick={() => input.current?.click()}
        className="mt-2 rounded border border-line px-2.5 py-1 hover:border-ink"
      >
        Give a map of built files …
      </button>
      <p className="mt-1 text-[11px] text-soft">JSON: {'{ "src/a.tsx": "assets/a-1f3c.js" }'}</p>
      {trouble ? (
        <p className="mt-1 break-words text-worse" role="alert">
          {trouble}
        </p>
      ) : null}
    </section>
  );
}
