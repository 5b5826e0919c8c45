export const JoinRibbon = () => <p>New here? A card is free: ask at the desk.</p>;
