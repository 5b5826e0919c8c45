import type { Topic } from './topics';

export function matches(topic: Topic, term: string): boolean {
  const wanted = term.trim().toLowerCase();
  return wanted === '' || `${topic.title} ${topic.text}`.toLowerCase().includes(wanted);
}
