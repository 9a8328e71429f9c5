// The window is called what its page's heading says, so that it is found among others, and a screen reader says where it went.
export default defineNuxtPlugin(({ payload }) => {
  // What the server drew, for customers, has its own name.
  if (payload.serverRendered) return
  const APP = document.title
  let asked = 0
  const say = () => {
    asked = 0
    const heading = document.querySelector('h1')?.textContent?.replace(/\s+/g, ' ').trim()
    const title = heading && heading !== APP ? `${heading} · ${APP}` : APP
    if (document.title !== title) document.title = title
  }
  // Once a frame, however much of the page changes in it.
  new MutationObserver(() => {
    asked ||= requestAnimationFrame(say)
  }).observe(document.body, { childList: true, subtree: true, characterData: true })
})
