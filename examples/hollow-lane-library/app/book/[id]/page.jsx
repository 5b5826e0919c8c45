import { useReducer } from '#kit';
import { BookFace } from '../../../parts/book/book-face.jsx';
import { Copies } from '../../../parts/book/copies.jsx';
import { PageFlip } from '../../../parts/book/page-flip.jsx';
import { CiteSheet } from '../../../parts/book/cite-sheet.jsx';
import { Reviews } from '../../../parts/book/reviews.jsx';
import { Neighbours } from '../../../parts/book/neighbours.jsx';
import { OnceSeen } from '../../../parts/frame/once-seen.jsx';
import { AudioBench } from '../../../parts/book/audio-bench.jsx';
import { loadBook } from '../../../parts/book/load-book.js';

function turn(state, action) {
  return action.type === 'open' ? { ...state, sheet: action.sheet } : { ...state, sheet: null };
}

export default function Book({ id }) {
  const book = loadBook(id);
  const [state, dispatch] = useReducer(turn, { sheet: null });
  const close = () => dispatch({ type: 'close' });
  return (
    <main>
      <BookFace book={book} />
      <Copies of={book} />
      <button type="button" onClick={() => dispatch({ type: 'open', sheet: 'flip' })}>Look inside</button>
      <button type="button" onClick={() => dispatch({ type: 'open', sheet: 'cite' })}>Cite this book</button>
      {state.sheet === 'flip' && <PageFlip book={book} onClose={close} />}
      {state.sheet === 'cite' && <CiteSheet book={book} onClose={close} />}
      {book.spoken && <AudioBench book={book} />}
      <OnceSeen>
        <Reviews of={book} />
      </OnceSeen>
      <OnceSeen>
        <Neighbours of={book} />
      </OnceSeen>
    </main>
  );
}
