export default () => <p>cellar</p>;
