/** A component that catches what goes wrong in what it draws, by the public conventions of component systems. */
const CATCHES = /\b(getDerivedStateFromError|componentDidCatch|onErrorCaptured|errorCaptured)\b|<svelte:boundary\b/;
/** What routes show when something goes wrong in them, as tables and route files of routers say it. */
const TABLE_TELLS = /\b(errorElement|errorComponent|ErrorBoundary)\b/;
/** What the text of a module says of failures. */
export interface Failures {
  /** It defines a component that catches what goes wrong inside. */
  catches: boolean;
  /** It says what routes show when they fail. */
  tells: boolean;
}

export function failuresOf(text: string): Failures {
  return { catches: CATCHES.test(text), tells: TABLE_TELLS.test(text) };
}
