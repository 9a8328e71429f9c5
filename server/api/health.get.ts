// The address that supervisors ask.
import { health } from '../figures/health'

export default defineEventHandler((event) => health(event))
