import { FLAG, listOf, NUMBER, type Shape, TEXT } from './shape.ts';

/** Fields inside of fields, at most so deep, and so many of them in all: fragments may name one another again and again. */
const DEEPEST = 12;
const MOST = 5000;

/**
 * What the answer to a query of GraphQL looks like, by the fields that it asks for (the standard's query language): what is named like several is a list, and
 * what a field without fields of its own holds goes by its name, both convention. Null where none of the texts has the query.
 */
export function shapeOfQuery(operation: string, texts: Iterable<string>): Shape | null {
  const all = [...texts];
  const fragments = new Map<string, string>();
  const fragmentAt = (name: string) => {
    if (!fragments.has(name))
      fragments.set(name, bodyAfter(all, new RegExp(`fragment\\s+${name}\\s+on\\s+\\w+`)) ?? '');
    return fragments.get(name)!;
  };
  const body = bodyAfter(all, new RegExp(`query\\s+${operation}\\b`));
  return body === null ? null : new Fields(fragmentAt).of(body, 0);
}

/** What stands in the braces after what begins in one of some texts; null where none has it. */
function bodyAfter(texts: readonly string[], beginning: RegExp): string | null {
  for (const text of texts) {
    const found = beginning.exec(text);
    if (!found) continue;
    let at = found.index + found[0].length;
    if (/^\s*\(/.test(text.slice(at))) at = closing(text, text.indexOf('(', at));
    const open = text.indexOf('{', at);
    if (open >= 0) return text.slice(open + 1, closing(text, open) - 1);
  }
  return null;
}

/** Behind the bracket that closes one that opens; what stands in texts is none. */
function closing(text: string, open: number): number {
  const token = /[({]|[)}]|"(?:[^"\\\n]|\\.)*"/g;
  token.lastIndex = open;
  let depth = 0;
  for (let found = token.exec(text); found; found = token.exec(text)) {
    if (/[({]/.test(found[0][0])) depth++;
    else if (/[)}]/.test(found[0][0]) && --depth === 0) return token.lastIndex;
  }
  return text.length;
}

class Fields {
  private left = MOST;

  constructor(private readonly fragmentAt: (name: string) => string) {}

  of(body: string, depth: number): Shape {
    const fields = new Map<string, Shape>();
    if (depth < DEEPEST) this.add(body.replace(/#[^\n]*/g, ''), depth, fields);
    return { is: 'object', fields: [...fields].map(([name, of]) => ({ name, of })) };
  }

  private add(body: string, depth: number, fields: Map<string, Shape>): void {
    const token = /\.\.\.\s*(?:on\s+\w+\s*)?(\w*)|(\w+)\s*(?::\s*(\w+))?|[({@]/g;
    for (let found = token.exec(body); found && this.left-- > 0; found = token.exec(body)) {
      const [written, spread, name, aliased] = found;
      if (written === '(' || written === '{') token.lastIndex = closing(body, found.index);
      else if (written === '@') token.lastIndex = found.index + /^@\w*/.exec(body.slice(found.index))![0].length;
      else if (name === undefined) this.addSpread(body, spread, depth, fields, token);
      else fields.set(name, this.field(body, aliased ?? name, depth, token));
    }
  }

  private addSpread(body: string, name: string, depth: number, fields: Map<string, Shape>, token: RegExp): void {
    if (name !== '' && depth < DEEPEST) {
      this.add(this.fragmentAt(name), depth + 1, fields);
      return;
    }
    const open = body.indexOf('{', token.lastIndex - 1);
    if (open < 0 || depth >= DEEPEST) return;
    const end = closing(body, open);
    this.add(body.slice(open + 1, end - 1), depth + 1, fields);
    token.lastIndex = end;
  }

  /** A field with what it is asked for, behind its arguments and directives. */
  private field(body: string, name: string, depth: number, token: RegExp): Shape {
    let at = token.lastIndex;
    for (let more = /^\s*(\(|@\w+)/.exec(body.slice(at)); more; more = /^\s*(\(|@\w+)/.exec(body.slice(at)))
      at = more[1] === '(' ? closing(body, at + more[0].length - 1) : at + more[0].length;
    token.lastIndex = at;
    if (!/^\s*\{/.test(body.slice(at))) return leafOf(name);
    const open = body.indexOf('{', at);
    token.lastIndex = closing(body, open);
    const inside = this.of(body.slice(open + 1, token.lastIndex - 1), depth + 1);
    return isSeveral(name) ? listOf(inside) : inside;
  }
}

function isSeveral(name: string): boolean {
  return /(List|Items|Results)$/.test(name) || (/s$/.test(name) && !/(ss|us|is|news|address)$/i.test(name));
}

function leafOf(name: string): Shape {
  if (/^(is|has|can|should)[A-Z]/.test(name)) return FLAG;
  return /(count|total|price|cents|amount|weight|size|year|age|score|rating|quantity|width|height|lat|lng|lon|index|position|minutes|hours|days|kg|metres|meters)$/i.test(
    name,
  )
    ? NUMBER
    : TEXT;
}
