// A recorded load case as something to be served: its document, and its resources padded to their exact sizes.

const HOST = 'case.test';
const FILLER = '<!-- -->';

/** What a case may hold to be served here. Others (visits, name lookups, loss, fonts, …) are judged elsewhere. */
const CASE = ['id', 'family', 'variant', 'about', 'conditions', 'document', 'resources', 'measured'];
const CONDITIONS = [
  'protocol',
  'tls',
  'rttMs',
  'downKbps',
  'upKbps',
  'cpuSlowdown',
  'serverScheduling',
  'queuePackets',
];
const DOCUMENT = ['url', 'bytes', 'serverMs', 'linkHeader', 'earlyHints', 'markup', 'flush'];
const ONLY = (object, known) => Object.keys(object).every((key) => known.includes(key));

export function canServe(c) {
  const { conditions, document, resources } = c;
  return (
    conditions.cpuSlowdown === 1 &&
    ONLY(c, CASE) &&
    ONLY(conditions, CONDITIONS) &&
    ONLY(document, DOCUMENT) &&
    ['h1', 'h2'].includes(conditions.protocol) &&
    conditions.serverScheduling !== 'urgency' &&
    Object.entries(resources).every(
      ([href, r]) => href.startsWith('/') && ['script', 'style', 'image'].includes(r.type),
    )
  );
}

/** Runs before the page: what its scripts call. */
export const PAGE_SCRIPT = `self.__case = {
  ran: new Set(), waits: [],
  busy(ms) { const end = performance.now() + ms; while (performance.now() < end); },
  done(href) { this.ran.add(href); this.waits = this.waits.filter((w) => !w()); },
  act(list) { for (const a of list) this.when(a, () => this.perform(a)); },
  when(a, go) {
    const then = () => (a.delayMs ? setTimeout(go, a.delayMs) : go());
    if (a.when === 'idle') requestIdleCallback(then);
    else if (a.when === 'load') document.readyState === 'complete' ? then() : addEventListener('load', then);
    else if (a.when === 'paint') new PerformanceObserver((l) => l.getEntriesByName('first-contentful-paint').length && then()).observe({ type: 'paint', buffered: true });
    else then();
  },
  perform(a) {
    if (a.do === 'import') import(a.href).catch(() => {});
    else if (a.do === 'script') document.head.append(Object.assign(document.createElement('script'), { src: a.href, async: a.async !== false }));
    else if (a.do === 'cpu') this.busy(a.cpuMs);
    else if (a.do === 'img') document.body.append(Object.assign(document.createElement('img'), { src: a.href }));
    else if (a.do === 'render') {
      const needs = (a.needs ?? []).filter((n) => !n.startsWith('render:'));
      const go = () => needs.every((n) => this.ran.has(n)) && (document.body.append(Object.assign(document.createElement('p'), { textContent: a.id + ' is shown here now' })), true);
      if (!go()) this.waits.push(go);
    } else document.head.append(Object.assign(document.createElement('link'), { rel: a.do, href: a.href, ...(a.as ? { as: a.as } : {}) }));
  },
};`;

function scriptOf(href, { imports = [], cpuMs = 0, then = [], bytes }) {
  const text = `${imports.map((i) => `import ${JSON.stringify(i)};`).join('')}__case.busy(${cpuMs});__case.act(${JSON.stringify(then)});__case.done(${JSON.stringify(href)});`;
  return padded(text, bytes, (n) => `/*${'x'.repeat(Math.max(0, n - 4))}*/`);
}

function padded(text, bytes, filler) {
  const missing = bytes - Buffer.byteLength(text);
  return Buffer.from(missing > 3 ? text + filler(missing) : text);
}

function attributes(item, names) {
  return names
    .flatMap((n) => (item[n] === undefined || item[n] === false ? [] : [item[n] === true ? n : `${n}="${item[n]}"`]))
    .join(' ');
}

function tagOf(item) {
  if (item.tag === 'link') return `<link ${attributes(item, ['rel', 'href', 'as', 'crossorigin', 'fetchpriority'])}>`;
  if (item.tag === 'img') return `<img ${attributes(item, ['src', 'width', 'height', 'loading', 'fetchpriority'])}>`;
  if (item.tag === 'text') return `<p>${'Some words that stand here. '.repeat(item.lines ?? 1)}</p>`;
  if (item.tag === 'body') return '';
  if (item.mode === 'inline')
    return `<script>__case.busy(${item.cpuMs ?? 0});__case.act(${JSON.stringify(item.then ?? [])})</script>`;
  const how = {
    blocking: '',
    async: 'async',
    defer: 'defer',
    module: 'type="module"',
    'module-async': 'type="module" async',
  }[item.mode];
  return `<script ${how} ${attributes(item, ['src', 'fetchpriority'])}></script>`;
}

function documentOf({ markup, bytes }) {
  let html = '<!doctype html><html><head><meta charset="utf-8"><title>Case</title>';
  let inBody = false;
  for (const item of markup) {
    const opens = !inBody && ['text', 'img', 'body'].includes(item.tag) ? '</head><body>' : '';
    const missing = (item.at ?? 0) - html.length - opens.length;
    if (missing >= FILLER.length) html += `<!--${' '.repeat(missing - 7)}-->`;
    inBody ||= opens !== '';
    html += opens + tagOf(item);
  }
  if (!inBody) html += '</head><body>';
  return padded(html, bytes, (n) => (n >= 7 ? `<!--${' '.repeat(n - 7)}-->` : ' '.repeat(n)));
}

const linkValue = (l) =>
  `<${l.href}>; rel=${l.rel ?? 'preload'}; as=${l.as}${l.crossorigin ? '; crossorigin' : ''}${l.fetchpriority ? `; fetchpriority=${l.fetchpriority}` : ''}`;
const TYPES = { script: 'text/javascript', style: 'text/css', image: 'image/svg+xml' };
const SHOWN = {
  style: '.a{color:#123}',
  image: '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><rect width="40" height="40"/></svg>',
};
const FILLERS = {
  style: (n) => `/*${' '.repeat(n - 4)}*/`,
  image: (n) => (n >= 7 ? `<!--${' '.repeat(n - 7)}-->` : ' '.repeat(n)),
};

/** What is answered of a case, by address, and where it is. */
export function siteOf({ document, resources }) {
  const answers = new Map(
    Object.entries(resources).map(([href, r]) => [
      href,
      {
        type: TYPES[r.type],
        body: r.type === 'script' ? scriptOf(href, r) : padded(SHOWN[r.type], r.bytes, FILLERS[r.type]),
        cache: r.cache ?? 'immutable',
        serverMs: r.serverMs,
      },
    ]),
  );
  answers.set(document.url, {
    ...{ type: 'text/html', body: documentOf(document), cache: 'no-store', serverMs: document.serverMs },
    ...{
      links: document.linkHeader?.map(linkValue),
      earlyLinks: document.earlyHints?.map(linkValue),
      flush: document.flush,
    },
  });
  return {
    host: HOST,
    answers: [...answers].map(([address, answer]) => [
      { host: HOST, address, forDocument: address === document.url },
      answer,
    ]),
  };
}
