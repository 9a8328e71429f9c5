// What comes after the first picture: not before its frame, and at once where nothing is drawn.
import { afterEach, expect, it, vi } from 'vitest'
import { afterPaint } from '~/lib/afterPaint'

afterEach(() => void vi.restoreAllMocks())
it('waits for the frame that is drawn next', async () => {
  let draw: FrameRequestCallback = () => {}
  vi.spyOn(window, 'requestAnimationFrame').mockImplementation((frame) => {
    draw = frame
    return 1
  })
  const done = vi.fn()
  const waiting = afterPaint().then(done)
  await new Promise((next) => setTimeout(next, 0))
  expect(done).not.toHaveBeenCalled()
  draw(0)
  // Within the frame nothing is painted yet.
  await Promise.resolve()
  expect(done).not.toHaveBeenCalled()
  await waiting
  expect(done).toHaveBeenCalledOnce()
})
it('waits for no frame in a window that nobody sees', async () => {
  vi.spyOn(document, 'hidden', 'get').mockReturnValue(true)
  const frame = vi.spyOn(window, 'requestAnimationFrame')
  await afterPaint()
  expect(frame).not.toHaveBeenCalled()
})
