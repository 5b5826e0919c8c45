export const Sacks = () => <ul />;
