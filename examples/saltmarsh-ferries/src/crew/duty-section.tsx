import type { RouteEntry } from '@saltmarsh/wayfinder';
import { messages } from '../shared/messages';
import { onDay } from '../shared/format';
import { DutyPicker } from './duty-picker';

export const dutyRoutes: RouteEntry[] = [{ path: 'manifest', page: () => import('./manifest-page') }];

export default function DutySection({ children }: { children?: unknown }) {
  return (
    <div>
      <h1>{messages.duty}, {onDay(Date.now())}</h1>
      <DutyPicker />
      {children as never}
    </div>
  );
}
