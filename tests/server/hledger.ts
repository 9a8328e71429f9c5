// The journal as hledger reads it: an independent double-entry program, from Debian, in strict mode.
import { spawnSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Client } from './client'

type Balance = [
  string,
  string,
  number,
  { aquantity: { decimalMantissa: number; decimalPlaces: number } }[],
]
/** What each account comes to in hledger, in cents; it fails where the journal is not strictly right. */
export async function hledgerBalances(owner: Client): Promise<Record<string, number>> {
  const { text } = await owner.send('journal')
  const file = join(mkdtempSync(join(tmpdir(), 'journal-')), 'journal.ledger')
  writeFileSync(file, text)
  const strict = spawnSync('hledger', ['-f', file, 'check', '--strict'], { encoding: 'utf8' })
  if (strict.status !== 0) throw new Error(strict.stderr)
  const { stdout } = spawnSync('hledger', ['-f', file, 'bal', '--flat', '-O', 'json'], {
    encoding: 'utf8',
    maxBuffer: 1e8,
  })
  const [rows] = JSON.parse(stdout) as [Balance[], unknown]
  const cents = ({ decimalMantissa, decimalPlaces }: Balance[3][number]['aquantity']) =>
    Math.round(decimalMantissa * 10 ** (2 - decimalPlaces))
  return Object.fromEntries(rows.map(([name, , , [sum]]) => [name, cents(sum!.aquantity)]))
}
