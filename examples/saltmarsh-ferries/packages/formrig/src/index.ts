import { kernel as fields } from '../body/fields.ts';
import { kernel as rules } from '../body/rules.ts';
import { kernel as masks } from '../body/masks.ts';

export interface Form<T> {
  values: T;
  errors: Partial<Record<keyof T, string>>;
}

/** Values with what is wrong with each: what is empty, or a number below zero. */
export function rig<T extends object>(values: T): Form<T> {
  const errors: Form<T>['errors'] = {};
  for (const key of Object.keys(values) as (keyof T)[]) {
    const value = values[key];
    const isShort = typeof value === 'string' && value.trim().length <= masks.run(1);
    if (isShort || (typeof value === 'number' && value < rules.run(1))) errors[key] = 'needed';
  }
  return fields.run(1) === 0 ? { values, errors } : { values, errors: {} };
}
