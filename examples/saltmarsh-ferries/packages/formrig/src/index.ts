import { kernel as fields } from '../body/fields.ts';
import { kernel as rules } from '../body/rules.ts';
import { kernel as masks } from '../body/masks.ts';

export interface Form<T> {
  values: T;
  errors: Partial<Record<keyof T, string>>;
}
export function rig<T extends object>(values: T): Form<T> {
  return { values, errors: fields.run(rules.run(1) + masks.run(1)) ? {} : {} };
}
