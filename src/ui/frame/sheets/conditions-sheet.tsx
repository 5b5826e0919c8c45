'use client';

import { wrap } from 'comlink';
import { useState } from 'react';
import { type Device, EVALUATION_RATE, type Link } from '../../../core/sim/conditions.ts';
import {
  DEVICE_LIMITS,
  deviceOf,
  LINK_LIMITS,
  linkOf,
  ownDeviceId,
  ownLinkId,
} from '../../../core/sim/own-conditions.ts';
import { REFERENCE_MS } from '../../../core/sim/workload.ts';
import { NumberField, PickField, TextField } from '../../parts/field.tsx';
import { Modal } from '../../parts/modal.tsx';
import { toast } from '../../parts/toast.ts';
import {
  forgetConditions,
  type KeptConditions,
  keepConditions,
  useKeptConditions,
} from '../../state/own-conditions.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { closeSheet } from './open-sheet.ts';

const PROTOCOLS = [
  { value: 'h2', label: 'HTTP/2' },
  { value: 'h1', label: 'HTTP/1.1' },
  { value: 'h3', label: 'HTTP/3' },
  { value: 'h2-h3', label: 'HTTP/2, then HTTP/3' },
] as const;
const TLS = [
  { value: '1.3', label: '1.3' },
  { value: '1.2', label: '1.2 (unchecked)' },
  { value: 'none', label: 'none' },
] as const;
const ORDERS = [
  { value: 'fifo', label: 'as answers become ready' },
  { value: 'urgency', label: 'by urgency' },
  { value: 'shared', label: 'all of it in equal shares' },
] as const;

/** Link and device by their values. A change makes them own ones; the address of the page spells them out. */
export function ConditionsSheet() {
  const linkId = useWorkbench((s) => s.linkId);
  const deviceId = useWorkbench((s) => s.deviceId);
  const choose = useWorkbench((s) => s.choose);
  const link = linkOf(linkId);
  const device = deviceOf(deviceId);
  const setLink = (change: Partial<Link>) => choose({ linkId: ownLinkId({ ...link, ...change }) });
  const setDevice = (change: Partial<Device>) => choose({ deviceId: ownDeviceId({ ...device, ...change }) });
  return (
    <Modal
      title="Conditions"
      about="Everything is predicted under these. The address of the page keeps them."
      width="wide"
      onClose={closeSheet}
    >
      <LinkFields link={link} set={setLink} />
      <Keep kind="links" what="link" current={link} onChoose={(id) => choose({ linkId: id })} />
      <DeviceFields device={device} set={setDevice} />
      <Keep kind="devices" what="device" current={device} onChoose={(id) => choose({ deviceId: id })} />
      <p className="mt-4 text-soft">
        1× is the reference machine.{' '}
        {device.evaluationRate === undefined
          ? `Script is taken to cost ${perKb('likely')} ms per minified kB on it, an assumption: between ${perKb('low')} and ${perKb('high')}.`
          : `Script costs ${(device.evaluationRate * 1000).toFixed(2)} ms per minified kB on it, by a recording.`}
      </p>
    </Modal>
  );
}

function LinkFields({ link, set }: { link: Link; set: (change: Partial<Link>) => void }) {
  return (
    <>
      <h3 className="mb-1.5 font-semibold">Link</h3>
      <div className="grid grid-cols-2 gap-x-4 gap-y-2">
        <NumberField
          label="Round trip"
          unit="ms"
          most={LINK_LIMITS.rttMs[1]}
          value={link.rttMs}
          onTake={(rttMs) => set({ rttMs })}
        />
        <NumberField
          label="Finding the host"
          unit="ms"
          most={LINK_LIMITS.dnsMs[1]}
          value={link.dnsMs}
          onTake={(dnsMs) => set({ dnsMs })}
        />
        <Rate label="Down" kbps={link.downKbps} onTake={(downKbps) => set({ downKbps })} />
        <Rate label="Up" kbps={link.upKbps} onTake={(upKbps) => set({ upKbps })} />
        <PickField
          label="Protocol"
          value={link.protocol}
          options={PROTOCOLS}
          onTake={(protocol) => set({ protocol })}
        />
        <PickField label="TLS" value={link.tls} options={TLS} onTake={(tls) => set({ tls })} />
        <PickField
          label="The server sends"
          value={link.serverScheduling}
          options={ORDERS}
          onTake={(serverScheduling) => set({ serverScheduling })}
        />
        <NumberField
          label="Packets lost at random"
          unit="%"
          most={LINK_LIMITS.lossPercent[1]}
          value={link.lossPercent ?? 0}
          onTake={(lossPercent) => set({ lossPercent })}
        />
      </div>
    </>
  );
}

function DeviceFields({ device, set }: { device: Device; set: (change: Partial<Device>) => void }) {
  return (
    <>
      <h3 className="mt-5 mb-1.5 font-semibold">Device</h3>
      <div className="grid grid-cols-2 gap-x-4 gap-y-2">
        <NumberField
          label="Runs script"
          unit="× slower"
          least={DEVICE_LIMITS.cpuFactor[0]}
          most={DEVICE_LIMITS.cpuFactor[1]}
          value={device.cpuFactor}
          onTake={(cpuFactor) => set({ cpuFactor })}
        />
        <MeasureDevice onMeasured={(cpuFactor) => set({ cpuFactor })} />
        <NumberField
          label="Screen width"
          unit="px"
          least={DEVICE_LIMITS.width[0]}
          most={DEVICE_LIMITS.width[1]}
          value={device.viewport.width}
          onTake={(width) => set({ viewport: { ...device.viewport, width } })}
        />
        <NumberField
          label="Screen height"
          unit="px"
          least={DEVICE_LIMITS.height[0]}
          most={DEVICE_LIMITS.height[1]}
          value={device.viewport.height}
          onTake={(height) => set({ viewport: { ...device.viewport, height } })}
        />
        <label className="flex items-center gap-1.5">
          <input type="checkbox" checked={device.touch} onChange={(event) => set({ touch: event.target.checked })} />{' '}
          touch
        </label>
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={device.dataSaver}
            onChange={(event) => set({ dataSaver: event.target.checked })}
          />{' '}
          data saver
        </label>
      </div>
    </>
  );
}

/** Own values under a name, for this browser: those of now can be kept, those of before chosen and forgotten. */
function Keep({
  kind,
  what,
  current: { id },
  onChoose,
}: {
  kind: keyof KeptConditions;
  what: string;
  current: { id: string };
  onChoose: (id: string) => void;
}) {
  const kept = useKeptConditions((s) => s[kind]);
  const isOwn = id.startsWith('own') && !kept.some((k) => k.id === id);
  if (!isOwn && kept.length === 0) return null;
  return (
    <div className="mt-2 flex flex-wrap items-end gap-2">
      {isOwn ? (
        <div className="w-56">
          <TextField
            label={`Keep this ${what} as`}
            placeholder="a name, then Enter"
            value=""
            check={(name) => (name.length > 40 ? 'Give up to 40 letters.' : null)}
            onTake={(name) => name !== '' && keepConditions(kind, { id, name })}
          />
        </div>
      ) : null}
      {kept.map((k) => (
        <span key={k.id} className="flex h-7 items-center rounded-full border border-line">
          <button
            type="button"
            aria-pressed={k.id === id}
            className={`h-full rounded-l-full pr-1 pl-2.5 ${k.id === id ? 'bg-ink text-on-ink' : 'hover:underline'}`}
            onClick={() => onChoose(k.id)}
          >
            {k.name}
          </button>
          <button
            type="button"
            aria-label={`Forget ${k.name}`}
            className="h-full min-w-6 pr-2 pl-1 text-soft hover:text-worse"
            onClick={() => forgetConditions(kind, k.id)}
          >
            ×
          </button>
        </span>
      ))}
    </div>
  );
}

/** What script is taken to cost, in ms for each minified kB. */
function perKb(end: keyof typeof EVALUATION_RATE): string {
  return String(Math.round(EVALUATION_RATE[end] * 1e6) / 1000);
}

/** A rate in Mbit/s, kept in kbit/s. */
function Rate({ label, kbps, onTake }: { label: string; kbps: number; onTake: (kbps: number) => void }) {
  return (
    <NumberField
      label={label}
      unit="Mbit/s"
      least={LINK_LIMITS.downKbps[0] / 1000}
      most={LINK_LIMITS.downKbps[1] / 1000}
      value={kbps / 1000}
      onTake={(mbps) => onTake(Math.round(mbps * 1000))}
    />
  );
}

/** Runs a fixed workload in a worker and places this device on the scale. */
function MeasureDevice({ onMeasured }: { onMeasured: (factor: number) => void }) {
  const [busy, setBusy] = useState(false);
  const measure = async () => {
    setBusy(true);
    const worker = new Worker(new URL('../../../worker/measure.worker.ts', import.meta.url), { type: 'module' });
    try {
      const took = await wrap<{ measure(): number }>(worker).measure();
      const factor = Math.max(DEVICE_LIMITS.cpuFactor[0], Math.round((took / REFERENCE_MS) * 10) / 10);
      onMeasured(factor);
      toast(`This device: ${took.toFixed(0)} ms for what takes ${REFERENCE_MS} ms on the reference machine.`);
    } catch {
      toast.error('The workload could not be run in this browser.');
    } finally {
      worker.terminate();
      setBusy(false);
    }
  };
  return (
    <button
      type="button"
      disabled={busy}
      onClick={() => void measure()}
      className="h-7 self-end rounded border border-line px-2.5 enabled:hover:border-ink disabled:opacity-50"
    >
      {busy ? 'measuring …' : 'measure this device'}
    </button>
  );
}
