export const WayHere = () => <p>Up the lane, past the pump.</p>;
