<canvas></canvas>
