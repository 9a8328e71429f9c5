// SQL that what goes through all subjects runs for this one.
import type { Erasure } from '../subject'

// What was merged into this customer is the same person.
/** How a person's words are taken out. What a law makes the firm keep stays as it was sent. */
export const ERASURES: readonly Erasure[] = [
  `UPDATE customers
  SET name = 'Taken out', phone = '', phone2 = '', email = '', email2 = '', line1 = '', town = '',
    postcode = '', office_note = '', printed_note = '', exempt_certificate = '', tags = '[]',
    stop_work = '', source = '', custom = '{}', search = ''
  WHERE id = ? OR merged_into = ?`,
  `UPDATE sites
  SET name = '', line1 = 'taken out', town = '', postcode = '', access_note = '', custom = '{}',
    search = '', lat = NULL, lon = NULL
  WHERE customer_id = ?`,
  `UPDATE contacts
  SET name = 'Taken out', role = '', phone = '', phone2 = '', email = '', search = '',
    removed = TRUE
  WHERE customer_id = ?`,
  `UPDATE equipment e
  JOIN sites s ON s.id = e.site_id
  SET e.serial = '', e.note = ''
  WHERE s.customer_id = ?`,
  `DELETE
  FROM attachments
  WHERE customer_id = ? OR call_id IN
    (SELECT id FROM calls WHERE JSON_VALUE(draft, "$.customerId") = ?)`,
  `UPDATE merges
  SET before_merge = '{"kept":{},"merged":{}}', undone_at = COALESCE(undone_at, merged_at)
  WHERE kept_id = ? OR merged_id = ?`,
]
