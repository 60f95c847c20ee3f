/** A drawing as a picture of pixels, painted by the browser. */

/** The bytes of a PNG of an SVG, so many pixels on its longer side. */
export async function pngOf(svg: Uint8Array, side: number): Promise<Uint8Array> {
  const url = URL.createObjectURL(new Blob([svg as BlobPart], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const k = side / Math.max(image.naturalWidth, image.naturalHeight, 1);
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(image.naturalWidth * k));
    canvas.height = Math.max(1, Math.round(image.naturalHeight * k));
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    if (!blob) throw new Error('the browser made no picture of it');
    return new Uint8Array(await blob.arrayBuffer());
  } finally {
    URL.revokeObjectURL(url);
  }
}
