/** A still from the beginning of a video, as a picture file. Throws where the browser cannot read it. */
export async function firstFrame(src: string): Promise<File> {
  const video = document.createElement('video')
  video.muted = true
  video.preload = 'auto'
  video.src = src
  await new Promise((ready, fail) => {
    video.onloadeddata = ready
    video.onerror = () => fail(new Error('unreadable'))
    setTimeout(() => fail(new Error('too slow')), 10_000)
  })
  const seeked = new Promise((ready) => (video.onseeked = ready))
  video.currentTime = Math.min(0.5, (video.duration || 1) / 2)
  await seeked
  const canvas = document.createElement('canvas')
  canvas.width = video.videoWidth
  canvas.height = video.videoHeight
  canvas.getContext('2d')?.drawImage(video, 0, 0)
  const blob = await new Promise<Blob | null>((made) => canvas.toBlob(made, 'image/jpeg', 0.85))
  if (!blob) throw new Error('unreadable')
  return new File([blob], 'poster.jpg', { type: 'image/jpeg' })
}
