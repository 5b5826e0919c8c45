'use client';

import { useMemo } from 'react';
import { layUnder } from '../../../core/recordings/match.ts';
import { ownDeviceId } from '../../../core/sim/own-conditions.ts';
import { counted } from '../../../core/text/counted.ts';
import { analyst } from '../../../worker/client.ts';
import type { LandingView } from '../../../worker/views.ts';
import { Few } from '../../parts/few.tsx';
import { percent, size, time } from '../../parts/format.ts';
import { toast } from '../../parts/toast.ts';
import { useStartupView } from '../../state/startup-view.ts';
import { useConditions, usePlan, useWorkbench } from '../../state/workbench.ts';

const MOST = 12;
const MOST_EXTRA = 40;
const MOST_MISSING = 8;

/** The recording that lies under the prediction: how far apart they are, and what only one of them has. */
export function UnderSection({ view }: { view: LandingView }) {
  const under = useStartupView((s) => s.under);
  const laid = useMemo(() => (under ? layUnder(view.timeline, under.recording) : null), [view, under]);
  if (!under || !laid) return null;
  const matched = laid.of.filter((o) => o !== null).length;
  const worst = view.timeline.requests
    .flatMap((r, i) => {
      const other = laid.of[i];
      return other ? [{ name: r.name, predicted: r.end, recorded: other.end, bytes: r.bytes, was: other.bytes }] : [];
    })
    .sort((a, b) => Math.abs(b.predicted - b.recorded) - Math.abs(a.predicted - a.recorded));
  return (
    <section className="mb-5 border-b border-line pb-5" aria-label="Recording">
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="min-w-0 truncate font-semibold" title={under.name}>
          {under.name}
        </h2>
        <button
          type="button"
          className="text-soft underline hover:text-ink"
          onClick={() => useStartupView.setState({ under: null })}
        >
          take away
        </button>
      </div>
      <p className="text-soft">
        {matched} of {counted(view.timeline.requests.length, 'request')} found in it
        {laid.bySize.length > 0 ? `, ${laid.bySize.length} of them only by their size` : ''}
        {laid.middleDifference === null ? '' : `; their ends are ${percent(laid.middleDifference)} apart in the middle`}
        .
      </p>
      {laid.load ? <LoadLine load={laid.load} /> : null}
      <table className="mt-2 w-full">
        <thead>
          <tr className="text-left text-soft">
            <th className="font-normal">ends furthest apart</th>
            <th className="text-right font-normal">predicted</th>
            <th className="text-right font-normal">recorded</th>
          </tr>
        </thead>
        <tbody>
          <Few rows={worst} most={MOST} as="tr" columns={3}>
            {(w) => (
              <tr key={w.name}>
                <td
                  className="max-w-28 truncate"
                  title={`${w.name}: ${size(w.bytes)} predicted, ${size(w.was)} recorded`}
                >
                  {w.name}
                </td>
                <td className="text-right">{time(w.predicted)}</td>
                <td className="text-right">{time(w.recorded)}</td>
              </tr>
            )}
          </Few>
        </tbody>
      </table>
      {laid.extra.length > 0 ? (
        <details className="mt-2">
          <summary className="cursor-pointer">{laid.extra.length} only in the recording</summary>
          <ul className="text-[11px] text-soft">
            <Few rows={laid.extra} most={MOST_EXTRA} as="li">
              {(e) => (
                <li key={`${e.address} ${e.discovered}`} className="break-all">
                  {e.address}, {size(e.bytes)}, {time(e.end)}
                </li>
              )}
            </Few>
          </ul>
        </details>
      ) : null}
      {laid.missing.length > 0 ? (
        <p className="mt-1 text-soft">
          Only predicted (no file of that name, or of that kind and size, is in it):{' '}
          <Few rows={laid.missing} most={MOST_MISSING} as="span">
            {(i, at) => (
              <span key={i}>
                {at > 0 ? ', ' : ''}
                {view.timeline.requests[i].name}
              </span>
            )}
          </Few>
        </p>
      ) : null}
      {under.recording.leftOut.length > 0 ? (
        <p className="mt-1 text-soft" title={under.recording.leftOut.join('\n')}>
          {under.recording.leftOut.length} entries have no times and are left out.
        </p>
      ) : null}
    </section>
  );
}

/** The load events side by side, and the rate of evaluation that would bring them together. */
function LoadLine({ load }: { load: { predicted: number; recorded: number } }) {
  const plan = usePlan();
  const route = useWorkbench((s) => s.route);
  const conditions = useConditions();
  const choose = useWorkbench((s) => s.choose);
  const calibrate = async () => {
    try {
      const found = await analyst().startup.calibrate(plan, route, conditions, load.recorded);
      if (!found.reached) {
        toast('No cost of script alone explains the difference. Check the link and the device first.');
        return;
      }
      choose({ deviceId: ownDeviceId({ ...conditions.device, evaluationRate: Number(found.rate.toPrecision(3)) }) });
      toast(`Script now costs ${(found.rate * 1000).toFixed(2)} ms per minified kB on the reference machine.`);
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <p className="mt-1">
      load event {time(load.predicted)}, recorded {time(load.recorded)}{' '}
      <button type="button" className="text-soft underline hover:text-ink" onClick={() => void calibrate()}>
        calibrate script by it
      </button>
    </p>
  );
}
