// Mutations, each told by a seed alone: fast-check draws them, so the same seed gives the same input anywhere.
import fc from 'fast-check';

/** What means something to one reader or another, or has broken one. */
const TOKENS = [
  ...[
    '(',
    ')',
    '{',
    '}',
    '[',
    ']',
    '<',
    '>',
    '`',
    '${',
    '"',
    "'",
    '\\',
    '/*',
    '*/',
    '//',
    '<!--',
    '-->',
    '\n',
    '\r\n',
    '\0',
  ],
  ...[
    'import(',
    "import './app'",
    'export * from',
    'await ',
    '=>',
    '?.',
    '??',
    'class ',
    'async ',
    '<div>',
    '</div>',
    '<A {...b}/>',
  ],
  ...[
    '@import url(',
    '@media ',
    ':not(',
    'calc(',
    '!important',
    '}',
    'url(data:',
    '\\0',
    '@layer ',
    '&',
    '<script>',
    '</script>',
  ],
  ...[
    '<template>',
    'srcset="',
    '<base href="//x">',
    '\u2028',
    '\ufeff',
    '\ud800',
    '😀',
    '\u202e',
    '__proto__',
    'constructor',
  ],
  ...[
    '1e999',
    '-0',
    '9'.repeat(30),
    'null',
    'undefined',
    '..',
    '../../..',
    '/',
    'file:///',
    'data:,',
    '%',
    '%zz',
    '*',
    '**/',
  ],
];
const VALUES = [
  ...[null, true, 0, -1, 1e308, -1e-9, 2 ** 53, 0.5, '', 'x', '/', '..', '__proto__', '\0', '\ud800', 'a'.repeat(5000)],
  ...[[], {}, [[]], [null], { kind: null }, { on: 'visible' }, '<script>', '1e5', '/:id', '*'.repeat(60)],
];

/** Up to six changes of a text: something taken out, repeated, put in, or of another text. */
export function mutatedText(corpus) {
  const change = fc.oneof(
    {
      weight: 3,
      arbitrary: fc.record({
        does: fc.constant('cut'),
        at: fc.double({ min: 0, max: 1, noNaN: true }),
        length: fc.nat(200),
      }),
    },
    {
      weight: 5,
      arbitrary: fc.record({
        does: fc.constant('put'),
        at: fc.double({ min: 0, max: 1, noNaN: true }),
        what: fc.constantFrom(...TOKENS),
        times: fc.oneof(fc.constant(1), fc.nat(5), fc.constantFrom(100, 3000, 30_000)),
      }),
    },
    {
      weight: 2,
      arbitrary: fc.record({
        does: fc.constant('double'),
        at: fc.double({ min: 0, max: 1, noNaN: true }),
        length: fc.nat(400),
        times: fc.nat(40),
      }),
    },
    {
      weight: 2,
      arbitrary: fc.record({
        does: fc.constant('splice'),
        at: fc.double({ min: 0, max: 1, noNaN: true }),
        other: fc.constantFrom(...corpus),
        from: fc.double({ min: 0, max: 1, noNaN: true }),
        length: fc.nat(500),
      }),
    },
    { weight: 1, arbitrary: fc.record({ does: fc.constant('end'), at: fc.double({ min: 0, max: 1, noNaN: true }) }) },
    {
      weight: 2,
      arbitrary: fc.record({
        does: fc.constant('letter'),
        at: fc.double({ min: 0, max: 1, noNaN: true }),
        code: fc.nat(0xffff),
      }),
    },
  );
  return fc
    .tuple(fc.constantFrom(...corpus), fc.array(change, { minLength: 1, maxLength: 6 }))
    .map(([text, changes]) => changes.reduce(changed, text));
}

function changed(text, change) {
  const at = Math.floor(change.at * text.length);
  const [before, after] = [text.slice(0, at), text.slice(at)];
  switch (change.does) {
    case 'cut':
      return before + after.slice(change.length);
    case 'put':
      return before + change.what.repeat(change.times) + after;
    case 'double':
      return before + after.slice(0, change.length).repeat(change.times) + after;
    case 'splice': {
      const begin = Math.floor(change.from * change.other.length);
      return before + change.other.slice(begin, begin + change.length) + after;
    }
    case 'letter':
      return before + String.fromCharCode(change.code) + after.slice(1);
    default:
      return before;
  }
}

/** Up to five changes inside of a value as JSON knows it; one time in four of its text instead. Gives text. */
export function mutatedJson(corpus) {
  const inside = fc
    .tuple(
      fc.constantFrom(...corpus),
      fc.array(
        fc.record({
          path: fc.array(fc.nat(1000), { minLength: 1, maxLength: 7 }),
          does: fc.constantFrom('set', 'set', 'set', 'drop', 'repeat', 'nest', 'name'),
          value: fc.constantFrom(...VALUES),
          times: fc.constantFrom(2, 50, 1000),
        }),
        { minLength: 1, maxLength: 5 },
      ),
    )
    .map(([value, changes]) => {
      const made = structuredClone(value);
      for (const change of changes) changeInside(made, change);
      return JSON.stringify(made);
    });
  const whole = mutatedText(corpus.map((value) => JSON.stringify(value)));
  return fc.oneof({ weight: 3, arbitrary: inside }, { weight: 1, arbitrary: whole });
}

function changeInside(root, { path, does, value, times }) {
  let at = root;
  for (const step of path.slice(0, -1)) {
    const keys = Object.keys(at);
    const next = keys.length > 0 ? at[keys[step % keys.length]] : null;
    if (typeof next !== 'object' || next === null) break;
    at = next;
  }
  const keys = Object.keys(at);
  if (keys.length === 0) return;
  const key = keys[path.at(-1) % keys.length];
  if (does === 'drop') Array.isArray(at) ? at.splice(Number(key), 1) : delete at[key];
  else if (does === 'repeat') {
    if (Array.isArray(at)) at.splice(Number(key), 0, ...Array.from({ length: times }, () => structuredClone(at[key])));
    else at[key] = [at[key], at[key]];
  } else if (does === 'nest') at[key] = { [key]: at[key] };
  else put(at, does === 'name' && !Array.isArray(at) ? '__proto__' : key, structuredClone(value));
}

/** Sets a member of its own, whatever it is called. */
function put(at, key, value) {
  Object.defineProperty(at, key, { value, enumerable: true, configurable: true, writable: true });
}

/** Bytes with some of them turned, cut or repeated. */
export function mutatedBytes(corpus) {
  return fc
    .tuple(
      fc.constantFrom(...corpus),
      fc.array(
        fc.tuple(
          fc.double({ min: 0, max: 1, noNaN: true }),
          fc.nat(255),
          fc.constantFrom('turn', 'turn', 'turn', 'end', 'cut', 'put'),
        ),
        {
          minLength: 1,
          maxLength: 8,
        },
      ),
    )
    .map(([bytes, changes]) =>
      changes.reduce((made, [share, byte, does]) => {
        const at = Math.floor(share * made.length);
        if (does === 'turn') return Buffer.concat([made.subarray(0, at), Buffer.from([byte]), made.subarray(at + 1)]);
        if (does === 'end') return made.subarray(0, at);
        if (does === 'cut') return Buffer.concat([made.subarray(0, at), made.subarray(at + byte)]);
        return Buffer.concat([made.subarray(0, at), Buffer.alloc(byte, byte), made.subarray(at)]);
      }, bytes),
    );
}

/** What an arbitrary gives for a seed. */
export function drawn(arbitrary, seed) {
  return fc.sample(arbitrary, { seed, numRuns: 1 })[0];
}
