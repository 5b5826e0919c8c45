/** Whoever would change one of these would change it for all. */
const unchangeable = (): never => {
  throw new TypeError('What is shared can’t be changed');
};
const NO_LIST: readonly never[] = Object.freeze([]);
const NO_MAP = Object.assign(new Map<unknown, unknown>(), { set: unchangeable });
const NO_SET = Object.assign(new Set<unknown>(), { add: unchangeable });

/**
 * Puts the same list, map or set in place of each empty one that an object holds; gives the object. Most of what modules say about most things is nothing, and an
 * empty map takes 200 bytes.
 */
export function withSharedEmpties<T extends object>(holder: T): T {
  const fields = holder as Record<string, unknown>;
  for (const name in fields) {
    const value = fields[name];
    if (Array.isArray(value)) {
      if (value.length === 0) fields[name] = NO_LIST;
    } else if (value instanceof Map) {
      if (value.size === 0) fields[name] = NO_MAP;
    } else if (value instanceof Set && value.size === 0) fields[name] = NO_SET;
  }
  return holder;
}
