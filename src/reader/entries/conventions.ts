import type { DirectoryRoute } from '../routes/directory-routes.ts';
import type { PackageDescription } from './types.ts';

/** Whether an app names a package among those that it needs. */
export function hasDependency({ dependencies, devDependencies }: PackageDescription, name: string): boolean {
  return [dependencies, devDependencies].some(
    (list) => typeof list === 'object' && list !== null && Object.hasOwn(list, name),
  );
}

/** The layouts that stand around every route. */
export function aroundAll([first, ...others]: readonly DirectoryRoute[]): string[] {
  return first.layouts.filter((layout) => others.every((r) => r.layouts.includes(layout)));
}
