export default () => <p>No such bell.</p>;
