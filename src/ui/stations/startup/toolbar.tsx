'use client';

import type { RequestRole } from '../../../core/sim/types.ts';
import { analyst } from '../../../worker/client.ts';
import type { LandingView } from '../../../worker/views.ts';
import { pictureOf } from '../../parts/picture.ts';
import { Pills, zoomWords } from '../../parts/pills.tsx';
import { RoleMark } from '../../parts/roles.tsx';
import { saveFile } from '../../parts/save-file.ts';
import { toast } from '../../parts/toast.ts';
import { useStartupView } from '../../state/startup-view.ts';
import { useConditions, usePlan, useWorkbench } from '../../state/workbench.ts';

const ZOOMS = [1, 2, 4, 8];
const LARGEST_RECORDING = 200_000_000;

/** Above the waterfall: how closely to look, which roles to see, and what can be brought and taken away. */
export function Toolbar({ view, drawing }: { view: LandingView; drawing: () => SVGSVGElement | null }) {
  const zoom = useStartupView((s) => s.zoom);
  const hidden = useStartupView((s) => s.hidden);
  const part = useStartupView((s) => s.part);
  const plan = usePlan();
  const route = useWorkbench((s) => s.route);
  const conditions = useConditions();
  const roles = [...new Set(view.timeline.requests.map((r) => r.role))];
  const name = `startup${route.replace(/[^A-Za-z0-9]+/g, '-').replace(/-$/, '')}`;
  const toggle = (role: RequestRole) => {
    const next = new Set(hidden);
    if (!next.delete(role)) next.add(role);
    useStartupView.setState({ hidden: next });
  };
  const bring = async (file: File | undefined) => {
    if (!file) return;
    try {
      if (file.size > LARGEST_RECORDING) throw new Error(`${file.name} is larger than 200 MB. Record one page load.`);
      const recording = await analyst().startup.readRecording(await file.text(), file.name);
      useStartupView.setState({ under: { name: file.name, recording } });
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  const saveHar = async () => {
    const text = await analyst().handoff.har(plan, route, conditions, new Date().toISOString());
    saveFile(`${name}.har`, 'application/json', text);
  };
  const savePicture = () => {
    const svg = drawing();
    if (svg) saveFile(`${name}.svg`, 'image/svg+xml', pictureOf(svg));
  };
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-3 gap-y-1 border-b border-line px-4 py-1.5">
      <Pills
        legend="Zoom"
        options={ZOOMS}
        chosen={zoom}
        words={zoomWords}
        onChoose={(next) => useStartupView.setState({ zoom: next })}
      />
      <fieldset className="flex flex-wrap gap-x-3">
        <legend className="sr-only">Roles</legend>
        {roles.map((role) => (
          <label key={role} className="flex items-center gap-1.5">
            <input type="checkbox" checked={!hidden.has(role)} onChange={() => toggle(role)} />
            <RoleMark role={role} /> {role}
          </label>
        ))}
      </fieldset>
      <select
        aria-label="Requests of a part"
        value={part ?? ''}
        onChange={(event) => useStartupView.setState({ part: event.target.value || null })}
        className="max-w-28 rounded border border-line bg-paper px-1.5 py-0.5"
      >
        <option value="">all parts</option>
        {view.parts.map((p) => (
          <option key={p.id} value={p.id}>
            for {p.name}
          </option>
        ))}
      </select>
      <span className="flex gap-3 text-soft">
        <label className="cursor-pointer underline focus-within:outline-2 hover:text-ink">
          compare with a recording
          <input
            type="file"
            accept=".har,application/json"
            className="sr-only"
            onChange={(event) => {
              void bring(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </label>
        <button type="button" className="underline hover:text-ink" onClick={savePicture}>
          save picture
        </button>
        <button type="button" className="underline hover:text-ink" onClick={() => void saveHar()}>
          save HAR
        </button>
      </span>
    </div>
  );
}
