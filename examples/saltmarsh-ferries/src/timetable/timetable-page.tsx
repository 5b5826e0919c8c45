import './timetable.css';
import { useAfter, useCell, later } from '@saltmarsh/view';
import { api } from '../shared/api';
import { onDay } from '../shared/format';
import type { Sailing } from '../shared/types';
import { DepartureBoard } from './departure-board';
import { BoardFilters } from './board-filters';
import { FareCalculator } from '../fares/fare-calculator';

const TideChart = later(() => import('../tide/tide-chart'));

export function TimetablePage() {
  const [sailings, setSailings] = useCell<Sailing[]>([]);
  const [to, setTo] = useCell('');
  const [priced, setPriced] = useCell(false);
  useAfter(() => void api.sailings(onDay(Date.now())).then(setSailings));
  return (
    <main class="timetable">
      <BoardFilters to={to} onTo={setTo} />
      <DepartureBoard sailings={sailings.filter((s) => !to || s.to === to)} />
      <button type="button" onClick={() => setPriced(true)}>Price a crossing</button>
      {priced ? <FareCalculator /> : null}
      <TideChart />
    </main>
  );
}
