// A firm moves house: everything in one file, which another Open Ledger takes in; its owner comes in, and nothing is missing.
import { expect, test } from '@playwright/test'
import { startRig } from '../../scripts/lib/rig.mjs'
import { leavesAllInOrder, quiet, sitDown } from './people'

leavesAllInOrder()
interface Rig {
  env: Record<string, string>
  stop(): Promise<void>
}

test('everything goes along in one file, and comes in elsewhere', async ({ browser }, info) => {
  test.setTimeout(300_000)
  const page = await sitDown(browser, 'owner', '/set-up')
  await page.getByRole('link', { name: 'Everything in and out' }).click()
  const owed = await page.getByRole('link', { name: /^Unpaid/ }).innerText()
  const coming = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Everything', exact: true }).click()
  const file = info.outputPath('everything.zip')
  await (await coming).saveAs(file)
  await expect(page.getByRole('row', { name: /^Everything/ })).toContainText('Hester Vane')

  const name = `moved-${process.env.TEST_PARALLEL_INDEX}`
  const there = (await startRig(name, { firm: true })) as Rig
  try {
    const context = await browser.newContext({ baseURL: there.env.TEST_URL })
    const door = await context.newPage()
    await door.goto('/begin')
    await door.getByRole('button', { name: /^It was in another Open Ledger/ }).click()
    await door.getByLabel(/^The code/).fill('0000-0000-0000')
    const chosen = async () => {
      const choosing = door.waitForEvent('filechooser')
      await door.getByRole('button', { name: 'Choose the archive' }).first().click()
      await (await choosing).setFiles(file)
    }
    await chosen()
    await expect(door.getByText('This is not the code that was printed')).toBeVisible()
    await door.getByLabel(/^The code/).fill(there.env.BEGIN_CODE!)
    await chosen()
    await expect(door.getByRole('heading', { name: 'Your firm is taken in' })).toBeVisible()
    await door.getByLabel(/^The code/).fill(there.env.BEGIN_CODE!)
    await door.getByLabel(/^The mail address/).fill('office@demo.test')
    await door.getByLabel(/^A new password/).fill('quiet otters swim')
    await door.getByRole('button', { name: 'Come in' }).click()
    await expect(door.getByText('No owner of this firm has this mail address.')).toBeVisible()
    await door.getByLabel(/^The mail address/).fill('owner@demo.test')
    await door.getByRole('button', { name: 'Come in' }).click()
    await expect(door.getByRole('link', { name: /^Unpaid/ })).toHaveText(
      new RegExp(owed.split(/\s+/)[1]!),
    )
    // What finds a caller is built anew, too.
    await door.keyboard.press('Control+k')
    await door.getByRole('combobox').fill('hallam')
    await expect(door.getByText('Hallam Dairy').first()).toBeVisible()
    await context.close()
  } finally {
    await there.stop()
  }
  quiet(page)
})
