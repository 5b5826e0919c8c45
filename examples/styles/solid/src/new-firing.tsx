export const NewFiring = () => <form>When?</form>;
