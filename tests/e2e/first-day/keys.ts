// Somebody at a keyboard whose every keystroke and press is counted, as a person would make them.
import { expect, type Locator, type Page } from '@playwright/test'
import { noise } from '../people'

export interface Counted {
  page: Page
  count: () => number
  press: (what: Locator | string) => Promise<void>
  type: (label: string | RegExp, text: string) => Promise<void>
  key: (name: string) => Promise<void>
}
/** `count` goes on over several pages of one person. */
export function counting(page: Page, before: () => number = () => 0): Counted {
  let count = 0
  const heard: string[] = []
  noise.set(page, heard)
  page.on('console', (message) => void (message.type() === 'error' && heard.push(message.text())))
  page.on('pageerror', (error) => void heard.push(error.message))
  return {
    page,
    count: () => before() + count,
    async press(what) {
      await (
        typeof what === 'string' ? page.getByRole('button', { name: what, exact: true }) : what
      )
        .first()
        .click()
      count++
    },
    async type(label, text) {
      const field = page.getByLabel(label, { exact: typeof label === 'string' }).first()
      // Whoever goes on by Tab presses one key for each field.
      await field.fill(text)
      await expect(field).toHaveValue(text)
      count += 1 + text.length
    },
    async key(name) {
      await page.keyboard.press(name)
      count++
    },
  }
}
