export const Log = () => <ol />;
