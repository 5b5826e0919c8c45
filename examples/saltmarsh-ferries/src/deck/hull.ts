/** Outline of a small ferry, bow to the right. */
export function hull(pen: CanvasRenderingContext2D, width: number, height: number): void {
  pen.beginPath();
  pen.moveTo(10, 20);
  pen.lineTo(width - 90, 20);
  pen.quadraticCurveTo(width - 10, height / 2, width - 90, height - 20);
  pen.lineTo(10, height - 20);
  pen.closePath();
  pen.stroke();
}
