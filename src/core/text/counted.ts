/** A number with what it counts: `1 file`, `12 files`, `1,200 files`. `many`: where the plural isn’t the word with an s. */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n.toLocaleString('en')} ${n === 1 ? one : many}`;
}
