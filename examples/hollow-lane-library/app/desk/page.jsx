import { useCallback, useState } from '#kit';
import { IssueForm } from '../../parts/desk/issue-form.jsx';
import { CardPrinter } from '../../parts/desk/card-printer.jsx';
import { Waiting } from '../../parts/desk/waiting.jsx';

export default function Issue() {
  const [printing, setPrinting] = useState(false);
  const startPrinting = useCallback(() => {
    setPrinting(true);
  });
  if (printing) return <CardPrinter onDone={() => setPrinting(false)} />;
  return (
    <main>
      <IssueForm />
      <Waiting />
      <button type="button" aria-label="Print a reader's card" onClick={startPrinting} />
    </main>
  );
}
