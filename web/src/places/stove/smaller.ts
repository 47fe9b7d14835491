/** A photograph made small before it is sent: a phone's is ten times what a record needs. */

/** Pixels of its longer side, as the server keeps it. */
const LONGEST = 1280

/** `file` as a JPEG of at most so many pixels a side; as it is where this browser cannot. */
export async function smaller(file: Blob): Promise<Blob> {
  try {
    const picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
    const by = Math.min(1, LONGEST / Math.max(picture.width, picture.height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(picture.width * by)
    canvas.height = Math.round(picture.height * by)
    canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
    picture.close()
    return await new Promise((done) => canvas.toBlob((made) => done(made ?? file), 'image/jpeg', 0.85))
  } catch {
    return file // the server makes it small, or says what is wrong with it
  }
}
