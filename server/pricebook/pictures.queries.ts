// SQL of the pictures of entries.
import type { Tx } from '../db/pool'

export const pictureById = (tx: Tx, id: string) =>
  tx.row<{ mime: string; bytes: Buffer }>('SELECT mime, bytes FROM price_pictures WHERE id = ?', [
    id,
  ])
export const insertPicture = (
  tx: Tx,
  p: { id: string; entryId: string; mime: string; bytes: Buffer },
) =>
  tx.run('INSERT INTO price_pictures (id, entry_id, mime, bytes) VALUES (?, ?, ?, ?)', [
    p.id,
    p.entryId,
    p.mime,
    p.bytes,
  ])
export const setPicture = async (
  tx: Tx,
  entryId: string,
  version: number,
  pictureId: string | null,
) =>
  (
    await tx.run(
      'UPDATE price_entries SET picture_id = ?, version = version + 1 WHERE id = ? AND version = ?',
      [pictureId, entryId, version],
    )
  ).affected
