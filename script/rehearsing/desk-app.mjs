// An app of packages that this project has installed: charts, dialogs, tabs, a command list, icons, tables of data.
import path from 'node:path';

const MAIN = `
import { lazy, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { create } from 'zustand';
import { Anchor, Bell, Search, Settings, User } from 'lucide-react';
import { Dialog, Tooltip } from 'radix-ui';
import { routes } from './routes.jsx';
import './desk.css';
export const useDesk = create((set) => ({ open: 0, more: () => set((s) => ({ open: s.open + 1 })) }));
function Frame({ children }) {
  const { open, more } = useDesk();
  return (
    <Tooltip.Provider>
      <header><Anchor /> Quay desk <Search /> <Bell /> <Settings /> <User />
        <Tooltip.Root><Tooltip.Trigger onClick={more}>Opened {open} times</Tooltip.Trigger></Tooltip.Root>
        <Dialog.Root><Dialog.Trigger>About</Dialog.Trigger><Dialog.Portal><Dialog.Content><Dialog.Title>About this desk</Dialog.Title></Dialog.Content></Dialog.Portal></Dialog.Root>
      </header>
      <main>{children}</main>
    </Tooltip.Provider>
  );
}
function App() {
  const { component: Page } = routes.find((r) => r.path === location.pathname) ?? routes[0];
  return <Frame><Suspense fallback={<p>One moment</p>}><Page /></Suspense></Frame>;
}
createRoot(document.getElementById('root')).render(<App />);
`;

const ROUTES = `
import { lazy } from 'react';
export const routes = [
  { path: '/', component: lazy(() => import('./pages/overview.jsx')) },
  { path: '/berths', component: lazy(() => import('./pages/berths.jsx')) },
  { path: '/import', component: lazy(() => import('./pages/import.jsx')) },
];
`;

const OVERVIEW = `
import { Area, AreaChart, CartesianGrid, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { TrendingUp, Waves } from 'lucide-react';
import { scaleLinear } from 'd3-scale';
const level = scaleLinear([0, 47], [0, 6.28]);
const tides = Array.from({ length: 48 }, (_, n) => ({ hour: n, level: 2 + Math.sin(level(n)) }));
export default function Overview() {
  return (
    <section><h1><Waves /> Tides today <TrendingUp /></h1>
      <AreaChart width={720} height={240} data={tides}><CartesianGrid /><XAxis dataKey="hour" /><YAxis /><Tooltip /><Area dataKey="level" isAnimationActive={false} /></AreaChart>
      <ol>{tides.map((t) => <li key={t.hour}>{t.hour}:00, {t.level.toFixed(2)} m</li>)}</ol>
    </section>
  );
}
`;

const BERTHS = `
import { Accordion, Select, Tabs } from 'radix-ui';
import { Ship } from 'lucide-react';
import { Command } from 'cmdk';
const berths = Array.from({ length: 120 }, (_, n) => ({ id: n + 1, ship: ['Wren', 'Teal', 'Heron'][n % 3], metres: 20 + (n % 7) * 5 }));
export default function Berths() {
  return (
    <Tabs.Root defaultValue="list"><Tabs.List><Tabs.Trigger value="list">List</Tabs.Trigger><Tabs.Trigger value="find">Find</Tabs.Trigger></Tabs.List>
      <Tabs.Content value="list"><h1>Berths</h1><table><tbody>{berths.map((b) => <tr key={b.id}><td>{b.id}</td><td><Ship size={12} /> {b.ship}</td><td>{b.metres} m</td></tr>)}</tbody></table>
        <Accordion.Root type="single"><Accordion.Item value="a"><Accordion.Trigger>Rules</Accordion.Trigger></Accordion.Item></Accordion.Root>
        <Select.Root><Select.Trigger><Select.Value placeholder="Quay" /></Select.Trigger></Select.Root>
      </Tabs.Content>
      <Tabs.Content value="find"><Command><Command.Input /></Command></Tabs.Content>
    </Tabs.Root>
  );
}
`;

const IMPORT = `
import { useState } from 'react';
import Papa from 'papaparse';
import { Upload } from 'lucide-react';
import { produce } from 'immer';
const text = 'ship,berth\\n' + Array.from({ length: 300 }, (_, n) => 'Wren ' + n + ',' + n).join('\\n');
export default function Import() {
  const [rows, setRows] = useState(() => Papa.parse(text, { header: true }).data);
  return (
    <section><h1><Upload /> Arrivals</h1><button onClick={() => setRows(produce((d) => { d.pop(); }))}>Drop the last</button>
      <table><tbody>{rows.map((r) => <tr key={r.ship}><td>{r.ship}</td><td>{r.berth}</td></tr>)}</tbody></table>
    </section>
  );
}
`;

/** Its files, by path from its folder. */
export const DESK = {
  'index.html':
    '<!doctype html><html lang="en"><head><title>Quay desk</title></head><body><div id="root"></div><script type="module" src="/src/main.jsx"></script></body></html>',
  'package.json':
    '{ "name": "quay-desk", "private": true, "type": "module", "dependencies": { "react": "*", "react-dom": "*" } }',
  'src/main.jsx': MAIN,
  'src/routes.jsx': ROUTES,
  'src/desk.css':
    'body { margin: 0; font: 15px sans-serif } header { display: flex; gap: 8px; padding: 8px; background: #16404d; color: #fff } main { padding: 16px }',
  'src/pages/overview.jsx': OVERVIEW,
  'src/pages/berths.jsx': BERTHS,
  'src/pages/import.jsx': IMPORT,
};

/** Where it has to lie so that packages are found: beside those of this project. */
export const DESK_FOLDER = path.resolve('script', 'rehearsing', '.made-desk');
