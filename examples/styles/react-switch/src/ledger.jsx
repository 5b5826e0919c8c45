export default () => <p>ledger</p>;
