/** A chosen file as a data: URL, the way files travel in JSON. Fails with a sentence where it cannot be read. */
export const dataUrl = (file: File): Promise<string> =>
  new Promise((done, fail) => {
    const reader = new FileReader()
    reader.onload = () => done(String(reader.result))
    reader.onerror = () => fail(new Error('The file cannot be read.'))
    reader.readAsDataURL(file)
  })
