import { simulate } from '../sim/simulate.ts';
import { parseLoadCase } from './load-case.ts';
import { predictionOf } from './play-case.ts';

/** A made-up page that uses everything a load case can say. */
const everything = {
  id: 'made-up',
  conditions: {
    protocol: 'h2',
    tls: true,
    rttMs: 60,
    downKbps: 8000,
    upKbps: 4000,
    cpuSlowdown: 2,
    serverScheduling: 'urgency',
  },
  document: {
    url: '/',
    bytes: 9000,
    serverMs: 120,
    earlyHints: [{ href: '/a.css', as: 'style' }],
    linkHeader: [{ href: '/lib.js', as: 'script', crossorigin: true, fetchpriority: 'low' }],
    flush: [
      { upTo: 3000, atMs: 0 },
      { upTo: 9000, atMs: 80 },
    ],
    markup: [
      { at: 100, tag: 'link', rel: 'stylesheet', href: '/a.css' },
      { at: 150, tag: 'link', rel: 'preconnect', href: 'https://far.example/', crossorigin: true },
      { at: 200, tag: 'link', rel: 'modulepreload', href: '/part.js' },
      { at: 250, tag: 'link', rel: 'prefetch', href: '/next.js' },
      { at: 300, tag: 'script', src: '/block.js', mode: 'blocking' },
      { at: 350, tag: 'script', src: '/async.js', mode: 'async', fetchpriority: 'high' },
      { at: 400, tag: 'script', src: '/main.js', mode: 'module' },
      { at: 450, tag: 'script', src: '/defer.js', mode: 'defer' },
      {
        at: 500,
        tag: 'script',
        mode: 'inline',
        id: 'start',
        cpuMs: 4,
        then: [{ do: 'script', href: '/late.js', async: false }],
      },
      { at: 600, actualAt: 640, tag: 'text', lines: 3 },
      { at: 4000, tag: 'img', src: '/pic.png', width: 100, height: 80 },
      { at: 4100, tag: 'img', src: '/far.png', width: 100, height: 80, loading: 'lazy', top: 5000 },
      { at: 5000, tag: 'text', id: 'below', top: 3000 },
    ],
  },
  resources: {
    '/a.css': { type: 'style', bytes: 4000, serverMs: 5 },
    '/lib.js': { type: 'script', bytes: 30_000, serverMs: 5, cpuMs: 6 },
    '/main.js': {
      type: 'script',
      bytes: 8000,
      serverMs: 5,
      cpuMs: 5,
      imports: ['/lib.js'],
      then: [
        { do: 'import', href: '/part.js' },
        { do: 'fetch', href: '/data' },
        { do: 'render', id: 'app', needs: ['/part.js', '/data'] },
        { do: 'render', id: 'inner', needs: ['render:app'] },
        { when: 'timer', delayMs: 40, do: 'img', href: '/injected.png' },
        { when: 'idle', do: 'cpu', cpuMs: 3 },
        { when: 'paint', do: 'preload', href: '/painted.js', as: 'script' },
        { when: 'load', do: 'stylesheet', href: '/b.css' },
        { when: 'visible', target: 'below', do: 'import', href: '/seen.js' },
        { when: 'load', delayMs: 200, do: 'scroll', target: 'below' },
      ],
    },
    '/part.js': { type: 'script', bytes: 5000, serverMs: 5, cpuMs: 2 },
    '/next.js': { type: 'script', bytes: 5000, serverMs: 5, cpuMs: 2 },
    '/block.js': { type: 'script', bytes: 2000, serverMs: 5, cpuMs: 2 },
    '/async.js': { type: 'script', bytes: 2000, serverMs: 5, cpuMs: 2, cache: 'revalidate' },
    '/defer.js': { type: 'script', bytes: 2000, serverMs: 5, cpuMs: 2 },
    '/late.js': { type: 'script', bytes: 2000, serverMs: 5, cpuMs: 2 },
    '/seen.js': { type: 'script', bytes: 2000, serverMs: 5, cpuMs: 2 },
    '/painted.js': { type: 'script', bytes: 2000, serverMs: 5 },
    '/b.css': { type: 'style', bytes: 900, serverMs: 5 },
    '/data': { type: 'fetch', bytes: 7000, serverMs: 60, then: [{ do: 'cpu', cpuMs: 1 }] },
    '/pic.png': { type: 'image', bytes: 9000, serverMs: 5 },
    '/far.png': { type: 'image', bytes: 9000, serverMs: 5 },
    '/injected.png': { type: 'image', bytes: 900, serverMs: 5 },
    'https://far.example/x.js': { type: 'script', bytes: 900, serverMs: 5, cpuMs: 1 },
  },
  steps: [
    { id: 'tap', atMs: 3000, action: 'click', do: [{ do: 'import', href: '/next.js' }], ready: ['/next.js'] },
    {
      id: 'rest',
      atMs: 4000,
      action: 'hover',
      leadMs: 20,
      do: [{ do: 'import', href: 'https://far.example/x.js' }],
      clickDo: [{ do: 'import', href: 'https://far.example/x.js' }],
      ready: ['https://far.example/x.js'],
    },
  ],
};

describe('load cases', () => {
  it('of everything that can be said are translated and predicted', () => {
    const found = parseLoadCase(structuredClone(everything));
    const timeline = simulate(found.program, found.conditions);
    const prediction = predictionOf(found, timeline);
    expect(prediction.id).toBe('made-up');
    expect(prediction.firstContentfulPaint).toBeGreaterThan(250);
    expect(prediction.load).toBeGreaterThan(prediction.firstContentfulPaint!);
    const asked = Object.keys(prediction.resources);
    expect(asked).toEqual(expect.arrayContaining(Object.keys(everything.resources).filter((h) => h !== '/far.png')));
    expect(asked).not.toContain('/far.png');
    for (const { requestStart, responseEnd } of Object.values(prediction.resources))
      expect(responseEnd).toBeGreaterThan(requestStart);
    for (const href of ['/main.js', '/lib.js', '/seen.js', '/late.js', 'start'])
      expect(prediction.evalEnd[href]).toBeGreaterThan(0);
    expect(prediction.evalEnd['/lib.js']).toBeLessThan(prediction.evalEnd['/main.js']);
    expect(prediction.steps.tap).toBeLessThan(40);
    expect(prediction.steps.rest).toBeGreaterThan(40);
  });

  it('of a second visit ask only for what may not be kept', () => {
    const found = parseLoadCase({ ...structuredClone(everything), visit: 'repeat' });
    const timeline = simulate(found.program, found.conditions);
    const bytes = new Map(timeline.requests.map((r) => [r.address, r.bytes]));
    expect(bytes.get('/main.js')).toBe(0);
    expect(bytes.get('/data')).toBe(7000);
  });

  it.each([
    [
      { ...everything, conditions: { ...everything.conditions, protocol: 'carrier pigeon' } },
      'conditions.protocol must be one of h1, h2, h3',
    ],
    [{ ...everything, document: { ...everything.document, bytes: 'many' } }, 'document.bytes'],
    [{ ...everything, resources: {} }, 'not among the resources'],
    [{ ...everything, steps: [{ id: 'x', atMs: 1, action: 'sing' }] }, 'steps[0].action must be one of click, hover'],
    [{ id: 'x' }, 'document must be an object'],
  ])('that are broken are refused by the field (%#)', (value, words) => {
    expect(() => parseLoadCase(structuredClone(value))).toThrow(words);
  });

  it('puts the body before the first thing that shows, unless the case says where it begins', () => {
    const markupOf = (markup: object[]) =>
      parseLoadCase({ ...structuredClone(everything), document: { ...everything.document, markup } }).program.document
        .markup;
    const link = { at: 100, tag: 'link', rel: 'stylesheet', href: '/a.css' };
    const text = { at: 600, tag: 'text', lines: 3 };
    expect(markupOf([link, text]).map((m) => [m.tag, m.at])).toEqual([
      ['link', 100],
      ['body', 600],
      ['text', 600],
    ]);
    const said = markupOf([link, { at: 300, tag: 'body' }, text]).filter((m) => m.tag === 'body');
    expect(said.map((m) => m.at)).toEqual([300]);
  });
});
