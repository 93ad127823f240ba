/** Longest edge a picture is sent with, pixels; the server keeps it no larger. */
const LONGEST = 1600;

/**
 * The picture upright and small enough for a weak network; what cannot be read here is sent as it is, so that the
 * server says what is wrong with it.
 */
export async function shrink(file: Blob): Promise<Blob> {
  try {
    const image = await createImageBitmap(file, { imageOrientation: 'from-image' });
    const scale = Math.min(1, LONGEST / Math.max(image.width, image.height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(image.width * scale));
    canvas.height = Math.max(1, Math.round(image.height * scale));
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    const small = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.85));
    return small ?? file;
  } catch {
    return file;
  }
}
