/** The version of the product, as /api/health tells it. */
export const VERSION = '0.19.0'
