import type { ReactNode } from 'react';

/** A calm notice in the place of content that isn't there: what is so, and what to do next. */
export function Message({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="mx-auto mt-24 max-w-md px-6">
      <h1 className="mb-1 text-base font-semibold">{title}</h1>
      <div className="text-soft">{children}</div>
    </div>
  );
}
