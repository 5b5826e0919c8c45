import { BERTHS } from './berths';

export function BerthList() {
  return <ul class="berths">{BERTHS.map((b) => <li>{b.name}</li>)}</ul>;
}
