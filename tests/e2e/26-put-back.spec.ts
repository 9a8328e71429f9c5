// What is set up one by one: worded otherwise where it stands, taken away, put back; and two who do so at once.
import { expect, test } from '@playwright/test'
import { leavesAllInOrder, quiet, sitDown } from './people'

leavesAllInOrder()

test('the third question is worded otherwise where it stands; the second window is told, and it is put back', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/set-up')
  const owner = await sitDown(browser, 'owner', '/set-up')
  const was = 'Where does the water come from?'
  const question = office.getByRole('textbox', { name: `The question “${was}”` })
  await question.fill('Where does your water come from?')
  const late = owner.getByRole('textbox', { name: `The question “${was}”` })
  await late.fill('Which water is it?')
  await question.blur()
  // What came meanwhile stands beside what was typed, which is not lost.
  await expect(owner.getByText('Where does your water come from?').first()).toBeVisible()
  await expect(
    owner.getByRole('textbox', { name: 'The question “Where does your water come from?”' }),
  ).toHaveValue('Which water is it?')
  await owner.getByRole('button', { name: 'Take theirs' }).click()

  const said = office
    .getByRole('row')
    .filter({ hasText: 'Question “Where does your water come from?” is asked' })
  await expect(said).toContainText(`text: ${was} → Where does your water come from?`)
  await said.getByRole('button', { name: /^Undo/ }).click()
  await expect(office.getByRole('textbox', { name: `The question “${was}”` })).toHaveValue(was)
  await expect(owner.getByRole('textbox', { name: `The question “${was}”` })).toHaveValue(was)
  quiet(office)
  quiet(owner)
})

test('a territory that nobody serves is taken away, and is there again once that is undone', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/schedule/set-up')
  const [name, form] = ['The far hills', office.getByPlaceholder('04101–04105, 04110')]
  await office.getByPlaceholder('Name', { exact: true }).fill(name)
  await form.fill('88100-88102')
  await office.getByRole('button', { name: 'Keep the territory' }).click()
  const row = office.getByRole('row').filter({ hasText: name })
  await expect(row).toContainText('88100 88101 88102')
  await row.getByRole('button', { name: `Take ${name} away` }).click()
  await expect(row).toHaveCount(0)
  // One that somebody serves stays.
  const served = 'The tarns'
  await expect(office.getByRole('row').filter({ hasText: served }).first()).toBeVisible()
  await expect(office.getByRole('button', { name: `Take ${served} away` })).toHaveCount(0)
  await office.goto('/set-up')
  const taken = () =>
    office
      .getByRole('row')
      .filter({ hasText: `Territory ${name} was taken away` })
      .getByRole('button', { name: /^Undo/ })
  await taken().click()
  const kept = office.getByRole('row').filter({ hasText: `Territory ${name}: 3 postcodes` })
  await expect(kept.first()).toBeVisible()
  await office.goto('/schedule/set-up')
  await office.getByRole('button', { name: `Take ${name} away` }).click()
  await expect(row).toHaveCount(0)
  quiet(office)
})
