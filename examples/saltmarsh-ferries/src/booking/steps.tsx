const STEPS = ['Passengers', 'Vehicle', 'Cabin', 'Payment'];

export function Steps({ at }: { at: number }) {
  return <ol class="steps">{STEPS.map((name, i) => <li aria-current={i === at ? 'step' : undefined}>{name}</li>)}</ol>;
}
