// Where places are: a table of postcodes, the yard, a site that somebody puts on the map.
import { expect, test } from '@playwright/test'
import { leavesAllInOrder, sitDown } from './people'

leavesAllInOrder()

test('a table of postcodes is tried, kept, and taken away', async ({ browser }) => {
  const row = (code: string, lat: string) =>
    ['XX', code, 'Farend', 'A', 'a', 'B', 'b', '', '', lat, '-75.25', '4'].join('\t')
  const file = [row('ZK1', '42.5'), row('ZK1', '42.7'), row('ZK2', 'north')].join('\n')
  const office = await sitDown(browser, 'office', '/schedule/set-up')
  await expect(office.getByText('0 postcodes with a place.')).toBeVisible()
  const box = office.getByRole('group', { name: 'Postcodes' })
  await box.locator('input[type=file]').setInputFiles({
    ...{ name: 'codes.txt', mimeType: 'text/plain', buffer: Buffer.from(file) },
  })
  await box.getByRole('button', { name: 'Try it dry' }).click()
  await expect(box).toContainText('Nothing has been changed yet: 1 postcode, 1 row without a place')
  await box.getByRole('button', { name: 'Keep these postcodes' }).click()
  await expect(box).toContainText('Kept: 1 postcode')
  await expect(box).toContainText('1 postcode with a place.')

  const at = office.getByLabel('Our yard: a postcode, or latitude and longitude')
  const was = await at.inputValue()
  await at.fill('the old mill')
  await office.getByRole('button', { name: 'Keep the yard' }).click()
  await expect(office.getByText('Nobody knows where this postcode is.')).toBeVisible()
  await at.fill('ZK1')
  await office.getByRole('button', { name: 'Keep the yard' }).click()
  await expect(at).toHaveValue('42.60000, -75.25000')
  await at.fill(was)
  await office.getByRole('button', { name: 'Keep the yard' }).click()
  await expect(at).toHaveValue(was)
  await box.getByRole('button', { name: 'Take the table away' }).click()
  await expect(box).toContainText('0 postcodes with a place.')
})

test('a site stands where somebody puts it', async ({ browser }) => {
  const office = await sitDown(browser, 'office', '/customers')
  await office.getByRole('textbox', { name: /Name, town/ }).fill('peel daughters')
  await office.getByRole('link', { name: 'Peel & Daughters' }).click()
  const form = office.getByRole('dialog')
  const place = form.getByLabel('On the map: latitude, longitude')
  const open = () =>
    office
      .getByRole('button', { name: /^Change \S/ })
      .first()
      .click()
  const keep = form.getByRole('button', { name: 'Keep' })
  await open()
  const was = await place.inputValue()
  await place.fill('somewhere')
  await keep.click()
  await expect(form.getByText('Write latitude and longitude')).toBeVisible()
  await place.fill('geo:42.61,-75.12')
  await keep.click()
  await expect(form).toBeHidden()
  await open()
  await expect(place).toHaveValue('42.61000, -75.12000')
  await place.fill(was)
  await keep.click()
  await expect(form).toBeHidden()
})
