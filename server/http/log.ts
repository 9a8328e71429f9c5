// JSON lines with a request id; no personal data and no secrets.
import pino from 'pino'
import { config } from '../config'

export const log = pino({ level: config.logLevel, base: null })
