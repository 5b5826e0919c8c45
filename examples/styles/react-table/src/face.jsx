export const Face = () => <p>face</p>;
