// What work of a kind usually charges: read out with the call, and left out only for a reason that its history keeps.
import { expect, test } from '@playwright/test'
import { callOf, chooseFrom, leavesAllInOrder, quiet, sitDown } from './people'

leavesAllInOrder()

test('an installation charges what is usual; a call reads it out, and says why it is not charged', async ({
  browser,
}) => {
  const owner = await sitDown(browser, 'owner', '/set-up')
  await owner.getByRole('button', { name: 'Change the kind installation' }).click()
  const form = owner.getByRole('dialog', { name: 'Kind of work: installation' })
  const search = form.getByLabel('A further charge, out of the price book')
  await search.fill('hoist truck')
  await expect(form.getByRole('list', { name: 'Found in the price book' })).toContainText('Hoist')
  await search.press('Enter')
  const chip = form.locator('.chip').first()
  await expect(chip).toBeVisible()
  const name = (await chip.innerText()).replace('×', '').trim()
  await form.getByRole('button', { name: 'Keep this kind' }).click()
  await expect(form).toHaveCount(0)
  const kinds = owner.getByRole('table', { name: 'Kinds of work' })
  await expect(kinds.getByRole('row').filter({ hasText: 'installation' })).toContainText('1 charge')

  const office = await sitDown(browser, 'office')
  await callOf(office, 'fenn orchard', 'Fenn Orchard')
  await office.getByLabel('What is wrong').fill('A pump is to be put in.')
  const read = office.getByRole('table', { name: 'What it would cost' })
  await expect(read).toHaveCount(0)
  await chooseFrom(office.getByLabel('Kind of work'), 'installation')
  await expect(read).toContainText(name)
  // Another kind charges nothing; what came with the first goes with it.
  await chooseFrom(office.getByLabel('Kind of work'), 'service')
  await expect(read).toHaveCount(0)
  await chooseFrom(office.getByLabel('Kind of work'), 'installation')
  await read.getByRole('button', { name: `Take out ${name}` }).click()
  const why = office.getByRole('dialog', { name: `${name} is not charged` })
  await why.getByRole('button', { name: 'Promised on the telephone' }).click()
  await why.getByRole('button', { name: 'Leave it out' }).click()
  await expect(office.getByText(`${name} is not charged: Promised on the telephone`)).toBeVisible()
  await office.getByRole('button', { name: `Read out ${name}` }).click()
  await expect(read).toContainText(name)
  await read.getByRole('button', { name: `Take out ${name}` }).click()
  await why.getByLabel('Why').fill('Part of the offer')
  await why.getByRole('button', { name: 'Leave it out' }).click()
  await office.keyboard.press('Control+Enter')
  await expect(office).toHaveURL(/\/work\//)
  await expect(office.getByRole('list', { name: 'History' })).toContainText(
    `“${name}” is not charged: Part of the offer`,
  )
  quiet(office)

  const said = owner.getByRole('row').filter({ hasText: 'Kinds of work were changed' })
  await said.first().getByRole('button', { name: /^Undo/ }).click()
  await expect(kinds.getByRole('row').filter({ hasText: 'installation' })).not.toContainText(
    'charge',
  )
  quiet(owner)
})
