// SQL of what is known of a firm that sets itself up.
import type { FirmFacts } from '../../core/settings/firstSteps'
import type { Tx } from '../db/pool'

type Counted = { [K in keyof FirmFacts]: number }
export async function firmFacts(tx: Tx): Promise<FirmFacts> {
  const f = (await tx.row<Counted>(
    `SELECT c.line1 <> '' AND c.town <> '' AND c.phone <> '' AS hasAddress, c.pay_to <> '' AS saysHowPaid,
      EXISTS (SELECT 1 FROM tax_classes) AS hasTaxes,
      (SELECT COUNT(*) FROM people p WHERE p.bookable AND p.active) AS bookable,
      (SELECT COUNT(*) FROM people p WHERE p.bookable AND p.active AND p.hours <> '{}') AS working,
      (SELECT COUNT(*) FROM territories) AS areas,
      (SELECT COUNT(*) FROM price_entries e WHERE NOT e.retired) AS entries,
      (SELECT COUNT(*) FROM customers) AS customers,
      EXISTS (SELECT 1 FROM messages m WHERE m.channel = 'mail' AND m.state = 'delivered') AS hasMailed,
      EXISTS (SELECT 1 FROM counters n WHERE n.run > 1) AS hasNumbers,
      (SELECT COUNT(*) FROM imports i WHERE i.what = 'brought' AND i.undone_at IS NULL) AS brought,
      EXISTS (SELECT 1 FROM visits) AS booked, EXISTS (SELECT 1 FROM invoices WHERE import_id IS NULL) AS billed,
      EXISTS (SELECT 1 FROM payments WHERE import_id IS NULL) AS paid
    FROM company c
    WHERE c.id = 1`,
  ))!
  return {
    ...f,
    ...{ hasAddress: Boolean(f.hasAddress), saysHowPaid: Boolean(f.saysHowPaid) },
    ...{ hasTaxes: Boolean(f.hasTaxes), hasMailed: Boolean(f.hasMailed) },
    hasNumbers: Boolean(f.hasNumbers),
  }
}
