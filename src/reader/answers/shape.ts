/** What values look like, as types say. */
export type Shape =
  | { is: 'text' | 'number' | 'flag' | 'date' | 'nothing' }
  | { is: 'one of'; values: (string | number | boolean | null)[] }
  | { is: 'any of'; shapes: Shape[] }
  | { is: 'list'; of: Shape }
  /** Values by names that no type tells. */
  | { is: 'record'; of: Shape }
  | { is: 'object'; fields: { name: string; of: Shape }[] };

export const TEXT: Shape = { is: 'text' };
export const NUMBER: Shape = { is: 'number' };
export const FLAG: Shape = { is: 'flag' };
export const DATE: Shape = { is: 'date' };
export const NOTHING: Shape = { is: 'nothing' };

export const listOf = (of: Shape): Shape => ({ is: 'list', of });

/** A value of any of some shapes: those that are nothing don't count where there is another one, and values that are written stand together. */
export function anyOf(shapes: readonly Shape[]): Shape {
  const some = shapes.filter((s) => s.is !== 'nothing');
  if (some.length === 0) return NOTHING;
  const values = some.flatMap((s) => (s.is === 'one of' ? s.values : []));
  const others = some.filter((s) => s.is !== 'one of');
  if (others.length === 0) return { is: 'one of', values: [...new Set(values)] };
  return others.length === 1 ? others[0] : { is: 'any of', shapes: others };
}

/** A value that is of all of some shapes: the fields of objects together, of one name the last. */
export function allOf(shapes: readonly Shape[]): Shape {
  const fields = new Map(shapes.flatMap((s) => (s.is === 'object' ? s.fields : [])).map((f) => [f.name, f]));
  if (fields.size > 0) return { is: 'object', fields: [...fields.values()] };
  return shapes.find((s) => s.is !== 'nothing') ?? NOTHING;
}
