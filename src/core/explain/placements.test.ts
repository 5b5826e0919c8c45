import path from 'node:path';
import { readSource } from '../../reader/read-source.ts';
import { withDecision } from '../plan/decisions.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { placementsOf } from './placements.ts';

const { snapshot } = readSource(path.resolve('examples/saltmarsh-ferries'));
const all = placementsOf(snapshot, BASELINE, 'support-chat', '/help', DEFAULT_CONDITIONS);
const at = (placement: string) => all.find((p) => p.placement === placement)!;

describe('all placements of a script', () => {
  it('stand side by side, with the one as built marked', () => {
    expect(all).toHaveLength(7);
    expect(all.filter((p) => p.asBuilt).map((p) => p.placement)).toEqual(['blocking']);
    expect(all.filter((p) => p.present).map((p) => p.placement)).toEqual(['blocking']);
  });

  it('show what blocking costs, and that waiting for the load event lets the page come first', () => {
    expect(at('after load').interactive).toBeLessThan(at('blocking').interactive);
    expect(at('after load').ran).toBeGreaterThan(at('after load').firstContent);
    for (const p of all) expect(p.ran).toBeGreaterThan(0);
  });

  it('promise exactly what deciding so gives', () => {
    const plan = withDecision(BASELINE, { kind: 'script', script: 'support-chat', placement: 'defer' });
    const { reading } = predict(snapshot, plan, '/help', DEFAULT_CONDITIONS);
    expect(at('defer').interactive).toBe(reading.milestones.interactive);
    const decided = placementsOf(snapshot, plan, 'support-chat', '/help', DEFAULT_CONDITIONS);
    expect(decided.find((p) => p.present)?.placement).toBe('defer');
    expect(placementsOf(snapshot, BASELINE, 'none', '/help', DEFAULT_CONDITIONS)).toEqual([]);
  });
});
