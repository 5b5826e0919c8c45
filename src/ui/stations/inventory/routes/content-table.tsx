'use client';

import { Plus, X } from 'lucide-react';
import type { ReactNode } from 'react';
import {
  ASSUMED_ANSWER,
  type ContentItem,
  type DataCall,
  DEFAULT_SERVER_MS,
  FONT_DISPLAYS,
  type Route,
  type RouteFont,
} from '../../../../core/snapshot/route-types.ts';
import { NumberField, PickField, TextField } from '../../../parts/field.tsx';
import { useModules } from './use-modules.ts';

const MOST_BYTES = 100_000_000;
const MOST_MS = 60_000;
const addressTrouble = (text: string) => (/^(https?:\/)?\//.test(text) ? null : 'Begin with / or https://.');

/** Images that a route shows. */
export function ContentTable({
  route,
  onChange,
}: {
  route: Route;
  onChange: (content: ContentItem[], what: string) => void;
}) {
  const put = (at: number, item: ContentItem) => onChange(route.content.with(at, item), `image ${item.id}`);
  const add = () => {
    const id = freeId('image', route.content);
    const item: ContentItem = {
      id,
      kind: 'image',
      address: `/images/${id.replace(' ', '-')}.jpg`,
      bytes: 50_000,
      serverMs: DEFAULT_SERVER_MS,
      foundIn: 'document',
      place: 'first screen',
      lazy: false,
    };
    onChange([...route.content, item], 'one image more');
  };
  return (
    <Listed title="Images" what="image" empty="No images are known." count={route.content.length} onAdd={add}>
      {route.content.map((item, at) => (
        <Row
          key={item.id}
          name={item.id}
          onRemove={() => onChange(route.content.toSpliced(at, 1), `without ${item.id}`)}
        >
          <TextField
            bare
            label={`address of ${item.id}`}
            value={item.address}
            check={addressTrouble}
            onTake={(address) => put(at, { ...item, address })}
          />
          <Kilobytes name={item.id} bytes={item.bytes} onTake={(bytes) => put(at, { ...item, bytes })} />
          <FoundIn item={item} onTake={(foundIn) => put(at, { ...item, foundIn })} />
          <PickField
            bare
            label={`place of ${item.id}`}
            value={item.place}
            options={[
              { value: 'first screen', label: 'first screen' },
              { value: 'below', label: 'below' },
            ]}
            onTake={(place) => put(at, { ...item, place })}
          />
          <label className="flex items-center gap-1.5 text-soft">
            <input
              type="checkbox"
              checked={item.lazy}
              onChange={(event) => put(at, { ...item, lazy: event.target.checked })}
            />
            lazy
          </label>
        </Row>
      ))}
    </Listed>
  );
}

/** Fonts that the text of the first screen is written in. */
export function FontTable({ route, onChange }: { route: Route; onChange: (fonts: RouteFont[], what: string) => void }) {
  const modules = useModules();
  const fonts = route.fonts ?? [];
  const put = (at: number, font: RouteFont) => onChange(fonts.with(at, font), `font ${font.id}`);
  const add = () => {
    const id = freeId('font', fonts);
    const font: RouteFont = {
      ...{ id, address: `/fonts/${id.replace(/ /g, '-')}.woff2`, bytes: 25_000, serverMs: DEFAULT_SERVER_MS },
      ...{ declaredBy: modules.like('.css')[0] ?? route.page, display: 'auto' },
    };
    onChange([...fonts, font], 'one font more');
  };
  return (
    <Listed title="Fonts" what="font" empty="No fonts are known." count={fonts.length} onAdd={add}>
      {fonts.map((font, at) => (
        <Row key={font.id} name={font.id} onRemove={() => onChange(fonts.toSpliced(at, 1), `without ${font.id}`)}>
          <TextField
            bare
            label={`address of ${font.id}`}
            value={font.address}
            check={addressTrouble}
            onTake={(address) => put(at, { ...font, address })}
          />
          <Kilobytes name={font.id} bytes={font.bytes} onTake={(bytes) => put(at, { ...font, bytes })} />
          <TextField
            bare
            label={`style sheet that names ${font.id}`}
            value={font.declaredBy}
            check={modules.trouble}
            suggestions={modules.like}
            onTake={(declaredBy) => put(at, { ...font, declaredBy })}
          />
          <PickField
            bare
            label={`how text shows while ${font.id} comes`}
            value={font.display}
            options={DISPLAYS}
            onTake={(display) => put(at, { ...font, display })}
          />
          <span />
        </Row>
      ))}
    </Listed>
  );
}

/** Values of `font-display`, as style sheets write them. */
const DISPLAYS = FONT_DISPLAYS.map((value) => ({ value, label: value }));

/** When a call is made, as far as the person is concerned. */
const CALLED = [
  { value: 'drawn', label: 'as it is drawn' },
  { value: 'shown', label: 'once it shows' },
  { value: 'evaluated', label: 'as its code runs' },
  { value: 'before', label: 'before the page' },
] as const;

/** Calls for data that a route makes. */
export function DataTable({
  route,
  onChange: change,
}: {
  route: Route;
  onChange: (calls: Pick<Route, 'data' | 'pageAfter'>, what: string) => void;
}) {
  const modules = useModules();
  const { pageAfter = [] } = route;
  const onChange = (data: DataCall[], what: string) => change({ data }, what);
  const put = (at: number, call: DataCall) => onChange(route.data.with(at, call), `call ${call.id}`);
  const putWhen = (at: number, when: (typeof CALLED)[number]['value'], label: string) => {
    const { begins: _, ...call } = route.data[at];
    const others = pageAfter.filter((id) => id !== call.id);
    change(
      {
        data: route.data.with(at, { ...call, begins: when === 'before' ? 'evaluated' : when }),
        pageAfter: when === 'before' ? [...others, call.id] : others,
      },
      `call ${call.id} ${label}`,
    );
  };
  const add = () => {
    const id = freeId('call', route.data);
    const call: DataCall = { id, address: '/api/answer', bytes: 5000, serverMs: 80, module: route.page };
    onChange([...route.data, call], 'one call more');
  };
  return (
    <Listed title="Data calls" what="call" empty="No calls are known." count={route.data.length} onAdd={add}>
      {route.data.map((call, at) => (
        <Row
          key={call.id}
          name={call.id}
          columns="minmax(0,4fr) 88px minmax(0,4fr) 176px 128px"
          onRemove={() =>
            change(
              { data: route.data.toSpliced(at, 1), pageAfter: pageAfter.filter((id) => id !== call.id) },
              `without ${call.id}`,
            )
          }
        >
          <TextField
            bare
            label={`address of ${call.id}`}
            value={call.address}
            check={addressTrouble}
            onTake={(address) => put(at, { ...call, address })}
          />
          <Kilobytes name={call.id} bytes={call.bytes} onTake={(bytes) => put(at, { ...call, bytes })} />
          <div className="min-w-0">
            <TextField
              bare
              label={`module that makes ${call.id}`}
              value={call.module}
              check={modules.trouble}
              suggestions={modules.like}
              onTake={(module) => put(at, { ...call, module })}
            />
            {call.evidence ? (
              <p
                className="truncate px-1.5 text-[11px] text-soft"
                title={`${call.evidence.path}:${call.evidence.line}`}
              >
                line {call.evidence.line}
                {isAssumed(call) ? '; size and time are assumed' : ''}
              </p>
            ) : null}
          </div>
          <NumberField
            bare
            label={`time at the server for ${call.id}`}
            unit="ms at the server"
            most={MOST_MS}
            value={call.serverMs}
            onTake={(serverMs) => put(at, { ...call, serverMs })}
          />
          <PickField
            bare
            label={`when ${call.id} is made`}
            value={pageAfter.includes(call.id) ? 'before' : (call.begins ?? 'drawn')}
            options={CALLED}
            onTake={(when) => putWhen(at, when, CALLED.find((c) => c.value === when)!.label)}
          />
        </Row>
      ))}
    </Listed>
  );
}

/** An image stands in the document, or a module asks for it once it has run. */
function FoundIn({ item, onTake }: { item: ContentItem; onTake: (found: ContentItem['foundIn']) => void }) {
  const modules = useModules();
  return (
    <TextField
      bare
      label={`where ${item.id} is named`}
      value={item.foundIn === 'document' ? 'document' : item.foundIn.module}
      check={(text) => (text === 'document' ? null : modules.trouble(text))}
      suggestions={(text) => ['document', ...modules.like(text)]}
      onTake={(text) => onTake(text === 'document' ? 'document' : { module: text })}
    />
  );
}

function Kilobytes({ name, bytes, onTake }: { name: string; bytes: number; onTake: (bytes: number) => void }) {
  return (
    <NumberField
      bare
      label={`size of ${name}`}
      unit="kB"
      most={MOST_BYTES / 1000}
      value={bytes / 1000}
      onTake={(kB) => onTake(Math.round(kB * 1000))}
    />
  );
}

function Listed({
  title,
  what,
  empty,
  count,
  onAdd,
  children,
}: {
  title: string;
  what: string;
  empty: string;
  count: number;
  onAdd: () => void;
  children: ReactNode;
}) {
  return (
    <section>
      <div className="flex items-baseline justify-between">
        <h2 className="font-semibold">{title}</h2>
        <button type="button" onClick={onAdd} className="flex items-center gap-1 text-soft hover:text-ink">
          <Plus size={13} /> {what}
        </button>
      </div>
      {count === 0 ? <p className="mt-1 text-soft">{empty}</p> : <ul className="mt-1">{children}</ul>}
    </section>
  );
}

function Row({
  name,
  columns = 'minmax(0,5fr) 92px minmax(0,5fr) minmax(0,3fr) 56px',
  onRemove,
  children,
}: {
  name: string;
  /** Widths of its fields. */
  columns?: string;
  onRemove: () => void;
  children: ReactNode;
}) {
  return (
    <li
      className="grid items-center gap-1 border-t border-line py-0.5"
      style={{ gridTemplateColumns: `${columns} 20px` }}
    >
      {children}
      <button
        type="button"
        aria-label={`Remove ${name}`}
        className="min-h-6 min-w-6 text-soft hover:text-worse"
        onClick={onRemove}
      >
        <X size={14} />
      </button>
    </li>
  );
}

/** Whether nobody has said yet what the code doesn't tell of a call. */
function isAssumed({ bytes, serverMs }: DataCall): boolean {
  return bytes === ASSUMED_ANSWER.bytes && serverMs === ASSUMED_ANSWER.serverMs;
}

function freeId(what: string, items: { id: string }[]): string {
  let n = items.length + 1;
  while (items.some((i) => i.id === `${what} ${n}`)) n++;
  return `${what} ${n}`;
}
