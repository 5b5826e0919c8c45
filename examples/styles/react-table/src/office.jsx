export const Office = () => <p>office</p>;
