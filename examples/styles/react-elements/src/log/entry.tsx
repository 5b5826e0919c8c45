export const Entry = () => <article />;
