const WORDS = ['calm', 'light air', 'light breeze', 'gentle breeze', 'moderate', 'fresh', 'strong', 'near gale', 'gale'];

export function windWord(force: number): string {
  return WORDS[Math.min(force, WORDS.length - 1)];
}
