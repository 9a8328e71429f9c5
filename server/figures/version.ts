/** The version of the product, as /api/health tells it. */
export const VERSION = '0.17.0'
