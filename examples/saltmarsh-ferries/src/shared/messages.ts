import en from './messages.en.json';

export const messages = en;
export type MessageKey = keyof typeof en;

/** Fills `{name}` places in a message. */
export function fill(message: string, values: Record<string, string | number>): string {
  return message.replace(/\{(\w+)\}/g, (whole, name: string) => String(values[name] ?? whole));
}
