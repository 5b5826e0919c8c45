/** The check digit of a card number. */
export function validCard(digits: string): boolean {
  const plain = digits.replace(/\D/g, '');
  let sum = 0;
  for (let i = 0; i < plain.length; i++) {
    const digit = Number(plain[plain.length - 1 - i]) * (i % 2 ? 2 : 1);
    sum += digit > 9 ? digit - 9 : digit;
  }
  return plain.length > 11 && sum % 10 === 0;
}
