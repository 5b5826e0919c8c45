export const Dial = () => <meter />;
