import { useState, lazy, Suspense, useRef } from 'react';
import { MouldDialog } from '../ui';
import { Chart } from '../chart';
import { Ledger } from '../ledger';
import { AlloyTable } from '../alloy';
import { Moulds } from '../moulds';
import { Casts } from '../casts';
import { NarrowMenu } from '../narrow';
import { Warning } from '../warn';
import { useAnswer } from '../use-answer';
import { useNarrow } from '../use-narrow';
const Furnace = lazy(() => import('../furnace').then((m) => ({ default: m.FurnaceControl })));
const TABS = [ { key: 'moulds', label: 'Moulds', Panel: Moulds }, { key: 'casts', label: 'Casts', Panel: Casts } ] as const;
export function Component() {
  const [dialog, setDialog] = useState<null | 'mould' | 'ledger'>(null);
  const [tab, setTab] = useState('moulds');
  const [expanded, setExpanded] = useState(false);
  const stock = useAnswer<{ short: boolean }>('/api/stock');
  const narrow = useNarrow();
  const isLedger = dialog === 'ledger';
  const Active = TABS.find((t) => t.key === tab)!.Panel;
  const renderLedger = () => <Ledger />;
  return (
    <main>
      <Chart />
      <button onClick={() => setDialog('mould')}>New mould</button>
      <MouldDialog open={dialog === 'mould'} onClose={() => setDialog(null)} />
      <button onClick={() => setDialog('ledger')}>Open the ledger</button>
      {isLedger && renderLedger()}
      {TABS.map((t) => <button key={t.key} onClick={() => setTab(t.key)}>{t.label}</button>)}
      <Active />
      <section><button aria-expanded={expanded} onClick={() => setExpanded(!expanded)}>Alloys</button>{expanded && <AlloyTable />}</section>
      {stock?.short && <Warning />}
      {narrow ? <NarrowMenu /> : null}
      <Suspense fallback={null}><Furnace /></Suspense>
    </main>
  );
}
