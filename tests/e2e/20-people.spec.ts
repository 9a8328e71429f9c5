// Somebody is added, comes in by the link of the mail, and leaves again.
import { expect, test } from '@playwright/test'
import { chooseFrom, leavesAllInOrder, quiet, sitDown } from './people'

leavesAllInOrder()
interface Mail {
  to: string[]
  raw: string
}
/** Where the mail to an address leads. */
async function linkTo(address: string): Promise<string> {
  let link = ''
  await expect
    .poll(async () => {
      const mails = (await (await fetch(`${process.env.MAIL_STANDIN}/mails`)).json()) as Mail[]
      const raw = mails.findLast(({ to }) => to.includes(address))?.raw.replace(/=\r?\n/g, '')
      link = /\/come-in\/[\w-]+/.exec(raw ?? '')?.[0] ?? ''
      return link
    })
    .not.toBe('')
  return link
}

test('a new technician comes in by the invitation, and is let go', async ({ browser }) => {
  // Tried again, it is somebody else.
  const key = Date.now().toString(36)
  const [name, email] = [`Nell ${key}`, `nell-${key}@demo.test`]
  const owner = await sitDown(browser, 'owner', '/people')
  await owner.getByRole('button', { name: 'Add somebody' }).click()
  await owner.getByLabel('Name', { exact: true }).fill(name)
  const role = owner.getByLabel('What they do here')
  await chooseFrom(role, 'dispatch: calls and the schedule')
  await owner.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(owner.getByText(/^Write it: only who is booked/)).toBeVisible()
  await chooseFrom(role, 'technician: a phone, and their visits')
  await owner.getByLabel('Mail address').fill(email)
  await owner.getByRole('button', { name: 'Add and invite' }).click()
  // The trail of access beneath names them, too.
  const row = owner.getByRole('row', { name: new RegExp(`^${name}`) })
  await expect(row).toContainText('invited, until')

  const link = await linkTo(email)
  const nell = await (await browser.newContext()).newPage()
  await nell.goto(link)
  await nell.getByLabel(/^Password/).fill('short')
  await nell.getByRole('button', { name: 'Come in' }).click()
  await expect(nell.getByText('A password has 12 characters or more.')).toBeVisible()
  await nell.getByLabel(/^Password/).fill('quiet otters swim')
  await nell.getByRole('button', { name: 'Come in' }).click()
  await expect(nell.getByRole('heading', { name: 'Nell’s day' })).toBeVisible()
  await expect(row).toContainText('signs in')
  const again = await (await browser.newContext()).newPage()
  await again.goto(link)
  await expect(again.getByRole('heading', { name: 'This link has ended' })).toBeVisible()

  await owner.getByRole('button', { name: `${name} leaves` }).click()
  await owner.getByRole('button', { name: 'They leave' }).click()
  await expect(row).toContainText('left')
  await nell.reload()
  await expect(nell).toHaveURL(/sign-in/)
  quiet(owner, /status of 422/)
})
