export const Letters = () => <form><textarea aria-label="A letter to the librarian" /><button type="submit">Send</button></form>;
