/** Visits the pixels along the border of a raster, 2 × (width + height) of them: those in its corners once for each side. */
export function eachBorderPixel(width: number, height: number, visit: (i: number) => void): void {
  for (let x = 0; x < width; x++) {
    visit(x);
    visit((height - 1) * width + x);
  }
  for (let y = 0; y < height; y++) {
    visit(y * width);
    visit(y * width + width - 1);
  }
}
