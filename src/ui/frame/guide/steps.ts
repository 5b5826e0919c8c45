import type { Plan } from '../../../core/plan/types.ts';
import type { StationId } from '../../../core/vocabulary/stations.ts';
import { useHandoffPage } from '../../state/handoff-page.ts';
import { useStations } from '../../state/stations.ts';
import { useWorkbench } from '../../state/workbench.ts';

/** What the steps look at to tell that they are done. */
export interface Present {
  station: StationId;
  route: string;
  plan: Plan;
  handoffPage: string;
}

export interface GuideStep {
  title: string;
  words: string;
  /** Words of the button that leads to the place. */
  way: string;
  go(): void;
  done(now: Present): boolean;
}

const ROUTE = '/timetable';
const DIALOG = 'src/timetable/departure-board.tsx::../tickets/ticket-dialog';

function to(station: StationId): void {
  useWorkbench.getState().choose({ route: ROUTE });
  useStations.getState().go(station);
}

/** The path through one improvement of the sample, in the real interface. */
export const GUIDE: GuideStep[] = [
  {
    title: 'Look at a slow start',
    words:
      'The landing on /timetable, on a crowded link with an everyday phone. Each bar is a request; the solid line is when the page answers. One file of half a megabyte stands in front of everything.',
    way: 'Show the startup',
    go: () => to('startup'),
    done: ({ station, route }) => station === 'startup' && route === ROUTE,
  },
  {
    title: 'Ask why it is so much',
    words:
      'Inventory says which code is in which start, and which import put it there. A document maker comes with every landing, though only the ticket dialog needs it.',
    way: 'Show the inventory',
    go: () => to('inventory'),
    done: ({ station }) => station === 'inventory',
  },
  {
    title: 'Defer it',
    words:
      'ticket-dialog is chosen. The sheet tells what would leave the start, what stays, and how long people will wait for it later. Press Detach it, or the key d. Ctrl Z takes it back.',
    way: 'Choose it in Split',
    go: () => {
      to('split');
      useWorkbench.getState().choose({ selection: { kind: 'import', key: DIALOG } });
    },
    done: ({ plan }) => plan.decisions.some((d) => d.kind === 'detach' && 'import' in d && d.import === DIALOG),
  },
  {
    title: 'See the wait it moved',
    words:
      'The live strip below shows the gain at once. The price is a wait when somebody opens the dialog: Visits plays that moment, with what stands there meanwhile.',
    way: 'Play a visit',
    go: () => to('visits'),
    done: ({ station }) => station === 'visits',
  },
  {
    title: 'Hint it',
    words:
      'Every finding and every hint here was simulated: what it saves, what it wastes, and for whom it pays. Take one, or switch on a hint under Each hint.',
    way: 'Show what else helps',
    go: () => to('advice'),
    done: ({ plan }) => plan.decisions.length > 1,
  },
  {
    title: 'Compare',
    words: 'The plan beside the app as built: every figure, every route and action, and which decision earned what.',
    way: 'Compare the plans',
    go: () => to('compare'),
    done: ({ station }) => station === 'compare',
  },
  {
    title: 'Take the patch',
    words:
      'The edits of the source as a diff for git apply, and what is left to be done by hand with the code for it. Beside it: links and headers for the server, and limits that keep the gain.',
    way: 'Show the patch',
    go: () => {
      useHandoffPage.setState({ page: 'patch' });
      to('handoff');
    },
    done: ({ station, handoffPage }) => station === 'handoff' && handoffPage === 'patch',
  },
];
