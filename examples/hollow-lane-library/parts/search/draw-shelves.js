export function drawShelves(pen) {
  for (let row = 0; row < 12; row++)
    for (let bay = 0; bay < 8; bay++) pen.fillRect(bay * 40, row * 22, 36, 3 + ((row * 7 + bay * 3) % 14));
}
