import { page, ROUND, screenPart } from '../../test-support/programs.ts';
import { REFERENCE_COSTS } from './conditions.ts';
import { EventQueue } from './event-queue.ts';
import { HttpCache } from './http-cache.ts';
import { MainThread } from './main-thread.ts';
import { byTask } from './page-context.ts';
import { Renderer } from './renderer.ts';
import type { PageMoments, Reveal } from './types.ts';

/** A renderer alone, on a page that has painted already, with a part that script draws at once. */
function rendererOf() {
  const clock = new EventQueue();
  const moments: PageMoments = {
    bodyInserted: 0,
    domInteractive: 0,
    domContentLoaded: 0,
    load: 0,
    firstContent: 0,
    firstContentCause: byTask({ clock }, 'task', 'first paint', -1),
  };
  const reveals: Reveal[] = [];
  const nothing = () => {};
  const renderer = new Renderer({
    clock,
    moments,
    reveals,
    program: page([], [], { parts: [screenPart('panel', { renderMs: 10, onItsOwn: false })] }),
    conditions: ROUND,
    costs: REFERENCE_COSTS,
    mainThread: new MainThread(clock),
    network: { exchange: nothing, lookUp: nothing, preconnect: nothing },
    httpCache: new HttpCache('empty'),
    outdated: false,
    viewport: ROUND.device.viewport,
    fetcher: { onArrival: nothing, onFailure: nothing, hasArrived: () => false },
    scripts: { onEvaluated: nothing, hasRun: () => false },
    parser: { bodyInserted: true, renderBlocked: false, lastBlocker: null },
    fonts: { laidOut: nothing, show: (_fonts, { shown }, by) => shown(by), whenPaintMay: (then) => then(null) },
    triggers: { await: nothing, drawn: nothing, shown: nothing, painted: nothing, seen: nothing, unseen: nothing },
  });
  return { clock, renderer, states: () => reveals.map((r) => [r.state, r.at]) };
}

describe('a part that leaves the screen', () => {
  it('doesn’t show for what was begun before it left, even where it was drawn and waited for the next frame', () => {
    const { clock, renderer, states } = rendererOf();
    clock.at(100, () => renderer.draw(0));
    // Drawn at 110, it would be seen a frame after that.
    clock.at(112, () => renderer.hide(0));
    clock.run(1000);
    expect(states().map(([state]) => state)).not.toContain('shown');
  });

  it('shows when it is drawn again, once', () => {
    const { clock, renderer, states } = rendererOf();
    clock.at(100, () => renderer.draw(0));
    clock.at(112, () => renderer.hide(0));
    clock.at(114, () => renderer.draw(0));
    clock.run(1000);
    const shown = states().filter(([state]) => state === 'shown');
    expect(shown).toEqual([['shown', 114 + 10 + REFERENCE_COSTS.frameWait]]);
  });
});
