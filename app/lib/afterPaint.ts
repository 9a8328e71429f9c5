// What a screen can do without at first comes once it has been seen: code that is read meanwhile would hold the picture back.

/** Ends once what was drawn last has been painted. Drawn where nobody sees it, a window paints nothing: then at once. */
export const afterPaint = (): Promise<void> =>
  new Promise((painted) => {
    if (document.hidden) painted()
    // The frame that is asked for begins before its picture is made, the next task after it.
    else requestAnimationFrame(() => setTimeout(painted, 0))
  })
