export function FiringRow(props: { degrees: number }) {
  return <li>{props.degrees} degrees</li>;
}
