export const Home = () => <h1>Tern Bay</h1>;
