export const HoldSlip = ({ book, onDone }) => <dialog open><p>{book.title} will wait for three days.</p><button type="button" onClick={onDone}>Good</button></dialog>;
