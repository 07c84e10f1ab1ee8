/** Longest side of a kept photo, px. */
const SIDE_PX = 900;
const QUALITY = 0.72;

/** A picture re-drawn small: nothing of the file but what is seen is kept, so no place tag either. */
export async function smallPhoto(file: Blob): Promise<string> {
  const image = await createImageBitmap(file);
  const scale = Math.min(1, SIDE_PX / Math.max(image.width, image.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(image.width * scale);
  canvas.height = Math.round(image.height * scale);
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL('image/jpeg', QUALITY);
}
