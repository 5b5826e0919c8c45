import { LoanList } from '../../parts/loans/loan-list.jsx';
import { FinePurse } from '../../parts/loans/fine-purse.jsx';
import { fetchLoans } from '../../parts/loans/fetch-loans.js';

export default async function Loans() {
  const { loans, fines } = await fetchLoans();
  return (
    <main>
      <LoanList loans={loans} />
      {fines.due > 0 ? <FinePurse fines={fines} /> : null}
    </main>
  );
}
