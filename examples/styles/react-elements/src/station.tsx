export const Station = () => <h1>The station</h1>;
