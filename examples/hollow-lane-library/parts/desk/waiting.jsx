export const Waiting = () => <aside>Nobody is waiting.</aside>;
