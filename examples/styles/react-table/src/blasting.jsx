export default () => <p>At ten, and at four.</p>;
