export const CardFlap = ({ reader }) => <dl><dt>Card</dt><dd>{reader.number}</dd></dl>;
