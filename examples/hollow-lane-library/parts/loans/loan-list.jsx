"use client";
import { loaded, useState } from '#kit';

const Calendar = loaded(() => import('./calendar.jsx'));

export function LoanList({ loans }) {
  const [shown, setShown] = useState(null);
  const look = (loan) => () => setShown(loan);
  return (
    <table>
      {loans.map((loan) => (
        <tr key={loan.id}>
          <td>{loan.title}</td>
          <td><button type="button" onClick={look(loan)}>Keep it longer</button></td>
        </tr>
      ))}
      {shown ? <Calendar loan={shown} /> : null}
    </table>
  );
}
