export const Problem = () => <p>problem</p>;
