export default () => <p>Nothing grows here.</p>;
