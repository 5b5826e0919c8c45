export async function fetchLoans() {
  const answer = await fetch('/api/loans');
  return answer.json();
}
