import { DeskRail } from '../../parts/desk/desk-rail.jsx';
import { useReader } from '../../parts/reader/use-reader.js';
import { OverdueList } from '../../parts/desk/overdue-list.jsx';
import { usePanel } from '../../parts/desk/use-panel.js';
import { StampLog } from '../../parts/desk/stamp-log.jsx';

export default function Desk({ children }) {
  const reader = useReader();
  const isAdmin = reader?.role === 'keeper';
  const { panel } = usePanel();
  return (
    <section>
      <DeskRail />
      {panel === 'overdue' && <OverdueList />}
      {isAdmin && <StampLog />}
      {children}
    </section>
  );
}
