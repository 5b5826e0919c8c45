export const ReviewForm = ({ book }) => <form><textarea aria-label={`On ${book.title}`} /><button type="submit">Send</button></form>;
