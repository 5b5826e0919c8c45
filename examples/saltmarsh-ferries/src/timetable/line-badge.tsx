const COLOURS: Record<string, string> = { Gullholm: '#16404d', Reedsay: '#5c7a29', Torsay: '#9c4a1a', Langmarsh: '#5a3d7a' };

export default function LineBadge({ to }: { to: string }) {
  return <span class="badge-line" style={`background:${COLOURS[to] ?? '#888'}`} title={to} />;
}
