// What was promised moves with its visit, and what was done or taken wrongly is put right, in the browsers of those concerned.
import { expect, test, type Page } from '@playwright/test'
import {
  enter,
  findAnything,
  type Person,
  quiet,
  setClock,
  sitDown,
  leavesAllInOrder,
} from './people'

leavesAllInOrder()
test.beforeEach(() => setClock('2026-11-24T10:21'))
const cards = (page: Page) => page.locator('.lane [data-visit]')
const sheet = (page: Page) =>
  page.getByRole('dialog').filter({ has: page.getByRole('button', { name: 'Save the visit' }) })

test('a visit moves to another day: what is promised is asked, the customer is told, and everything speaks of the new day', async ({
  browser,
}) => {
  const dispatch = await sitDown(browser, 'dispatch', '/schedule?date=2026-11-26')
  const third = cards(dispatch).nth(2)
  await expect(third).toBeVisible()
  const id = (await third.getAttribute('data-visit'))!
  const card = dispatch.locator(`.lane [data-visit="${id}"]`)
  await card.focus()
  await dispatch.keyboard.press('Enter')
  const [, customer] = /, (.*)$/.exec(
    (await sheet(dispatch).getByRole('heading').first().textContent())!,
  )!
  await enter(sheet(dispatch).getByLabel('Day of the visit'), '2026-12-04')
  await enter(sheet(dispatch).getByLabel('Begins'), '14:00')
  await sheet(dispatch).getByRole('button', { name: 'Save the visit' }).click()
  const asked = sheet(dispatch).getByRole('alertdialog', { name: 'Before it is saved' })
  await expect(asked).toContainText(/it was promised for Thu, Nov 26/i)
  await expect(asked.getByRole('radio', { name: 'Promise another time' })).toBeChecked()
  await enter(asked.getByLabel('Promised from'), '14:00')
  await enter(asked.getByLabel('Promised to'), '16:00')
  await asked.getByRole('button', { name: 'Place it all the same' }).click()
  const tell = dispatch.getByRole('dialog', { name: `Tell ${customer} of the other time` })
  await expect(tell.getByLabel('Text', { exact: true })).toHaveValue(
    /We said that we would come on Thu, Nov 26.* Now we come on Fri, Dec 4 between 14:00 and 16:00/,
  )
  // Whoever has no time for it now finds it again.
  await tell.getByRole('button', { name: 'Close' }).click()
  await dispatch.goto('/to-act-on')
  const waits = dispatch.getByRole('table', { name: 'Customers to tell' })
  const row = waits.getByRole('row').filter({ hasText: customer! })
  await expect(row).toContainText('now it is Fri, Dec 4, between 14:00 and 16:00')
  await row.getByRole('link').click()
  await tell.getByLabel('Mail to').fill('moved@example.com')
  await tell.getByRole('button', { name: 'Send the mail' }).click()
  await expect(dispatch.getByText('The mail is on its way.')).toBeVisible()
  await expect(row).toHaveCount(0)
  await expect
    .poll(async () =>
      (
        (await (await fetch(`${process.env.MAIL_STANDIN}/mails`)).json()) as {
          to: string[]
          raw: string
        }[]
      ).some((m) => m.to.includes('moved@example.com') && m.raw.includes('Fri, Dec 4')),
    )
    .toBe(true)
  await dispatch.goto('/schedule?date=2026-12-04')
  await dispatch.getByRole('button', { name: 'Remind customers…' }).click()
  const reminder = dispatch
    .getByRole('dialog', { name: /^Remind/ })
    .getByRole('row')
    .filter({ hasText: customer! })
  await expect(reminder).toContainText('Dec 4 between 14:00 and 16:00')
  quiet(dispatch, /status of 409/)
})

test('a technician who begins a visit of another day is asked, and whoever dispatches sees it on that day', async ({
  browser,
}) => {
  const dispatch = await sitDown(browser, 'dispatch', '/schedule?date=2026-11-25')
  // Somebody who is nowhere at the moment, and goes somewhere tomorrow.
  const [who, id, until] = await dispatch.evaluate(async () => {
    const dayOf = async (date: string) =>
      (await (await fetch(`/api/v1/schedule?date=${date}`)).json()) as {
        technicians: { id: string; name: string; kind: string }[]
        visits: { id: string; technicianId: string; state: string; finishAt: string | null }[]
      }
    const [today, tomorrow] = [await dayOf('2026-11-24'), await dayOf('2026-11-25')]
    const busy = today.visits.filter((v) => ['driving', 'on_site', 'paused'].includes(v.state))
    const free = tomorrow.visits.find((v) => !busy.some((b) => b.technicianId === v.technicianId))!
    const { name } = today.technicians.find((t) => t.id === free.technicianId)!
    const worked = today.visits.filter(
      (v) => v.technicianId === free.technicianId && v.state === 'finished',
    )
    const until = Math.max(...worked.map((v) => Date.parse(v.finishAt!)), 0)
    return [name.split(' ')[0]!.toLowerCase(), free.id, until] as const
  })
  // Whom another test had work until the evening sets off in the evening.
  if (until > Date.parse('2026-11-24T10:21-05:00')) setClock('2026-11-24T19:00')
  const phone = await sitDown(browser, who as Person, '/field')
  await phone.goto(`/field/visits/${id}`)
  const setOff = phone.getByRole('button', { name: 'Set off' })
  await setOff.click()
  const asked = phone.getByRole('dialog', { name: 'Another day' })
  await expect(asked).toContainText('This visit is planned for Wed, Nov 25')
  await asked.getByRole('button', { name: 'Not this one' }).click()
  await expect(setOff).toBeVisible()
  await setOff.click()
  await asked.getByRole('button', { name: 'Begin it now' }).click()
  await expect(phone.getByText('Driving since')).toBeVisible()
  await dispatch.goto('/schedule')
  await expect(dispatch.locator(`.lane [data-visit="${id}"]`)).toContainText('driving')
  quiet(dispatch)
})

test('a payment that was entered wrongly is taken back for what it was, and its invoice is open again', async ({
  browser,
}) => {
  const owner = await sitDown(browser, 'owner', '/invoices?state=open')
  const link = owner.locator('tbody tr').nth(2).getByRole('link').first()
  await expect(link).toBeVisible()
  await owner.goto((await link.getAttribute('href'))!)
  const head = owner.getByRole('heading', { level: 1, name: /^I-/ })
  await expect(head).toBeVisible()
  await owner.getByRole('button', { name: 'Take payment…' }).click()
  const pay = owner.getByRole('dialog')
  await pay
    .getByRole('radio', { name: /Cash/i })
    .or(pay.getByRole('button', { name: /Cash/i }))
    .first()
    .click()
  await pay.getByRole('button', { name: /^Take \$/ }).click()
  await pay.getByRole('button', { name: 'Done' }).click()
  await expect(head).toContainText('paid')
  await owner.getByRole('button', { name: 'Take it back…' }).last().click()
  const back = owner.getByRole('dialog', { name: /^Take back R-/ })
  await expect(back.getByRole('radio')).toHaveCount(1)
  await back.getByLabel('What was wrong').fill('another customer’s money')
  await back.getByRole('button', { name: 'Take the payment back' }).click()
  await expect(owner.getByText('was entered wrongly')).toBeVisible()
  await expect(head).not.toContainText('paid')
  quiet(owner)
})

test('a technician who forgot the clock mends their time; the office reads what it was, what it is and why', async ({
  browser,
}) => {
  const office = await sitDown(browser, 'office', '/schedule')
  const [who, visitId, workId] = await office.evaluate(async () => {
    const read = async (path: string) => (await fetch(`/api/v1/${path}`)).json() as unknown
    const day = (await read('schedule')) as {
      technicians: { id: string; name: string }[]
      visits: Record<'id' | 'technicianId' | 'state' | 'workOrderId', string>[]
    }
    // One that took its time: those of other tests are begun and finished within seconds.
    for (const { id, technicianId, state, workOrderId } of day.visits) {
      if (state !== 'finished') continue
      const work = (await read(`work-orders/${workOrderId}`)) as {
        visits: { id: string; siteSeconds: number }[]
      }
      if (work.visits.find((visit) => visit.id === id)!.siteSeconds < 20 * 60) continue
      const { name } = day.technicians.find((t) => t.id === technicianId)!
      return [name.split(' ')[0]!.toLowerCase(), id, workOrderId] as const
    }
    throw new Error('nobody worked for long today')
  })
  const phone = await sitDown(browser, who as Person, '/field')
  await phone.goto(`/field/visits/${visitId}`)
  await phone.getByText('Times', { exact: true }).click()
  const mine = phone.getByRole('listitem').filter({ hasText: 'on site' }).last()
  await mine.getByRole('button', { name: 'Correct…' }).click()
  const form = phone.getByRole('dialog', { name: /^Correct the time of/ })
  await enter(form.getByLabel('Until'), '23:00')
  await form.getByLabel('Why').fill('left earlier')
  await form.getByRole('button', { name: 'Keep the correction' }).click()
  await expect(form).toContainText('That has not been yet.')
  const from = await form.getByLabel('From').inputValue()
  const [hour, minute] = from.split(':').map(Number) as [number, number]
  const until = `${String(hour + Number(minute > 48)).padStart(2, '0')}:${String((minute + 11) % 60).padStart(2, '0')}`
  await enter(form.getByLabel('Until'), until)
  await form.getByRole('button', { name: 'Keep the correction' }).click()
  await expect(form).toHaveCount(0)
  await expect(mine).toContainText(/0:1[01] h/)
  await office.goto(`/work/${workId}`)
  await expect(office.getByText(/Time of .* corrected: on site, .*: left earlier/)).toBeVisible()
  quiet(office)
})

test('a signature is a paper of its own: what comes after it is not agreed yet, and the second one leaves the first as it was', async ({
  browser,
}) => {
  const ines = await sitDown(browser, 'ines')
  await ines.getByRole('link', { name: /Open now/ }).click()
  const sign = async (name: string) => {
    await ines.getByRole('button', { name: 'Show the customer' }).click()
    await ines.getByLabel('Your name').fill(name)
    await ines.getByRole('button', { name: 'Sign with the typed name' }).click()
    await ines.getByRole('button', { name: /^I agree to/ }).click()
    await expect(ines.getByText(`✓ ${name} signed for`)).toBeVisible()
  }
  await sign('Alva Quill')
  await ines.getByRole('button', { name: '+ Price book' }).click()
  await ines.getByLabel('Search the price book').fill('relief valve ¾ 75')
  await ines.getByRole('button', { name: /Relief valve ¾ in, 75 psi P-/ }).click()
  await expect(ines.getByText('Added: Relief valve')).toBeVisible()
  await ines.getByRole('button', { name: 'Back to the lines' }).click()
  await expect(ines.getByText(/came or grew after the customer agreed/)).toBeVisible()
  await expect(ines.getByRole('button', { name: /^Relief valve/ })).toContainText('not agreed yet')
  await sign('Bertram Quill')
  await expect(ines.getByText('not agreed yet')).toHaveCount(0)
  const number = /W-\d+/.exec(await ines.locator('main').innerText())![0]
  const office = await sitDown(browser, 'office')
  await findAnything(office, number)
  await office.getByRole('option').first().click()
  await office.getByRole('button', { name: 'What Alva Quill signed' }).click()
  const paper = office.getByRole('dialog', { name: 'What was signed' })
  await expect(paper).toContainText('Signed by Alva Quill')
  await expect(paper).not.toContainText('Relief valve')
  await paper.getByRole('button', { name: 'Close' }).click()
  await office.getByRole('button', { name: 'What Bertram Quill signed' }).click()
  await expect(paper).toContainText('Relief valve')
  quiet(office)
})

test('a price beyond one’s limit is asked for on the spot, and set with another person’s yes', async ({
  browser,
}) => {
  const [ines, owner] = [await sitDown(browser, 'ines'), await sitDown(browser, 'owner')]
  await ines.getByRole('link', { name: /Open now/ }).click()
  const line = ines.locator('.lines .line').first()
  await line.click()
  const each = ines.getByLabel('Each, on this work order only')
  const before = await each.inputValue()
  await each.fill('0.01')
  await ines.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(ines.getByText(/% below its price; you may go 10 % below/)).toBeVisible()
  await ines.getByLabel('Why, for whoever decides').fill('third visit for the same fault')
  await ines.getByRole('button', { name: 'Ask for a yes' }).click()
  await expect(ines.getByText(/It is asked for/)).toBeVisible()
  await owner.goto('/to-act-on')
  const row = owner
    .getByRole('table', { name: 'Waiting for a yes' })
    .getByRole('row')
    .filter({ hasText: 'third visit for the same fault' })
  await expect(row).toContainText('$0.01 instead of')
  await row.getByRole('link').click()
  await expect(owner.getByText(/asks for a yes:/)).toBeVisible()
  await owner.getByRole('button', { name: 'Yes', exact: true }).click()
  await expect(owner.getByText(/asks for a yes:/)).toHaveCount(0)
  await expect(owner.getByText(/Said yes to Ines/)).toBeVisible()
  await expect(line).not.toContainText(before)
  await expect(line).toContainText('0.01')
  quiet(owner)
})
