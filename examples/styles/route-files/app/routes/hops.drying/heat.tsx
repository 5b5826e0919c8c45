export const Heat = () => <meter />;
