// A role of the firm's own: made by the owner, given to somebody, given more than those that it begins as.
import { expect, test } from '@playwright/test'
import { chooseFrom, leavesAllInOrder, quiet, sitDown } from './people'

leavesAllInOrder()

test('the owner makes a foreman, who sees what things cost; nobody else does', async ({
  browser,
}) => {
  // Tried again, it is another role.
  const name = `Foreman ${Date.now().toString(36)}`
  const owner = await sitDown(browser, 'owner', '/set-up#rights')
  await owner.getByRole('button', { name: 'A further role' }).click()
  const form = owner.getByRole('dialog', { name: 'A further role' })
  await form.getByLabel('What it is called').fill(name)
  await chooseFrom(form.getByLabel('It begins as'), 'dispatch: calls and the schedule')
  await form.getByRole('button', { name: 'Keep this role' }).click()
  await expect(form).toHaveCount(0)
  const own = owner.getByRole('table', { name: 'Roles of our own' })
  await expect(own.getByRole('row').filter({ hasText: name })).toContainText('dispatch')
  const box = owner.getByRole('checkbox', { name: `${name}: see what things cost us` })
  await box.setChecked(true, { force: true })
  const keep = owner.getByRole('button', { name: 'Keep this', exact: true })
  await keep.click()
  await expect(keep).toBeDisabled()

  const dispatch = await sitDown(browser, 'dispatch', '/price-book')
  const cost = dispatch.getByText('Cost', { exact: true }).first()
  await expect(dispatch.getByText('Price', { exact: true }).first()).toBeVisible()
  await expect(cost).toHaveCount(0)
  await owner.goto('/people')
  await owner.getByRole('button', { name: 'Change Corin Ashby' }).click()
  const person = owner.getByRole('dialog', { name: 'Corin Ashby' })
  const role = async (called: string) => {
    await chooseFrom(person.getByLabel('What they do here'), called)
    await person.getByRole('button', { name: 'Keep', exact: true }).click()
    await expect(person).toHaveCount(0)
  }
  await role(`${name}: as dispatch`)
  // The trail of access beneath names them, too.
  await expect(owner.getByRole('row', { name: /^Corin Ashby/ })).toContainText(name)
  await dispatch.reload()
  await expect(cost).toBeVisible()

  await owner.getByRole('button', { name: 'Change Corin Ashby' }).click()
  await role('dispatch: calls and the schedule')
  await owner.goto('/set-up#rights')
  await owner.getByRole('button', { name: `Take the role ${name} away` }).click()
  await expect(own.getByText(name)).toHaveCount(0)
  await expect(box).toHaveCount(0)
  quiet(owner)
  quiet(dispatch)
})
