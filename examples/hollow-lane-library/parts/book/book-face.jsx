export const BookFace = ({ book }) => <h1 class="spine">{book.title}</h1>;
