import { parseScript } from './parse-script.ts';

function onActs(code: string): boolean {
  const { imports, error } = parseScript('src/x.tsx', `import a, { b } from './a';\n${code}`, {
    jsxImportSource: 'react',
  });
  expect(error).toBeNull();
  return imports.find((i) => i.specifier === './a')?.onActs ?? false;
}

describe('an import that is used when people do something, and nowhere else', () => {
  it.each([
    ['export const X = () => <button onClick={() => a()} />;', true],
    ['export const X = () => <Picker onPick={async (p) => { await a(p); b(); }} />;', true],
    ['export function X() { const save = () => a(1); return <button onClick={save} />; }', true],
    ['export function X() { function save() { b(); } return <form onSubmit={save} onReset={save} />; }', true],
    ["export const bind = (to) => to.addEventListener('click', () => b());", true],
    ['export const X = () => <button onClick={a} />;', false],
    ['export const X = () => <img onLoad={() => a()} />;', false],
    ['export const X = () => <p>{a()}</p>;', false],
    ['export const X = () => <button onClick={() => a()}>{b}</button>;', false],
    ['export function X() { const save = () => a(1); save(); return <button onClick={save} />; }', false],
    ['export function X() { const save = () => a(1); return <Other save={save} />; }', false],
    ['export async function load() { return a(); }', false],
    ['export const X = () => <button onClick={() => 1} title={b} />;', false],
    ['const save = () => 1; { const save = () => a(); } export const X = () => <b onClick={save} />;', false],
  ])('%s: %s', (code, expected) => {
    expect(onActs(`${code}\nexport const keep = 1;`)).toBe(expected);
  });
});
