export function SeatLegend() {
  return <p class="legend"><span>free</span><span>taken</span><span>yours</span></p>;
}
