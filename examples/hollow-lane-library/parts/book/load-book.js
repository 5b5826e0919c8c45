export function loadBook(id) {
  return { id, title: 'Moss and Mortar', spoken: id.startsWith('s'), copies: 3 };
}
