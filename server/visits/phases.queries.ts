// SQL of the phases of work orders.
import type { Tx } from '../db/pool'
import type { ListIn } from '../db/queries'

export interface PhaseRow {
  id: string
  name: string
}
export const phasesIn = (workOrderId: string): ListIn => ({
  columns: 'id, name',
  from: 'work_phases WHERE work_order_id = ?',
  values: [workOrderId],
  order: 'position, id',
})
export const phasesOf = (tx: Tx, workOrderId: string) =>
  tx.rows<PhaseRow>(
    'SELECT id, name FROM work_phases WHERE work_order_id = ? ORDER BY position, id',
    [workOrderId],
  )
interface Placed extends PhaseRow {
  workOrderId: string
  position: number
}
export const insertPhase = (tx: Tx, { id, workOrderId, position, name }: Placed) =>
  tx.run('INSERT INTO work_phases (id, work_order_id, position, name) VALUES (?, ?, ?, ?)', [
    id,
    workOrderId,
    position,
    name,
  ])
export const updatePhase = (tx: Tx, { id, workOrderId, position, name }: Placed) =>
  tx.run('UPDATE work_phases SET position = ?, name = ? WHERE id = ? AND work_order_id = ?', [
    position,
    name,
    id,
    workOrderId,
  ])
/** What was of it is of none then. */
export const removePhase = (tx: Tx, id: string) =>
  tx.run('DELETE FROM work_phases WHERE id = ?', [id])
/** Puts a visit or a line of a work order into a phase of it, or into none. */
export const setPhase = (
  tx: Tx,
  table: 'visits' | 'work_lines',
  { workOrderId, id, phaseId }: { workOrderId: string; id: string; phaseId: string | null },
) =>
  tx.run(`UPDATE ${table} SET phase_id = ? WHERE id = ? AND work_order_id = ?`, [
    phaseId,
    id,
    workOrderId,
  ])
export const bumpWorkOrder = async (tx: Tx, id: string, version: number) =>
  (
    await tx.run('UPDATE work_orders SET version = version + 1 WHERE id = ? AND version = ?', [
      id,
      version,
    ])
  ).affected
