export function Stops({ from, to }: { from: string; to: string }) {
  return (
    <ol class="stops">
      <li>{from}, customs quay</li>
      <li>Ebb Skerry, on request at high water</li>
      <li>{to}, new pier</li>
    </ol>
  );
}
